package main

// This file is what follows the first start, on the command line: a machine read, compared with what
// was foretold, its fault looked for; and a simulated one.

import (
	"bytes"
	"errors"
	"fmt"
	"io"
	"math/rand/v2"
	"net/http"
	"os"
	"slices"
	"strings"
	"time"

	"github.com/spf13/cobra"

	"deepbay/internal/core/draft"
	"deepbay/internal/core/fault"
	"deepbay/internal/core/job"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/power"
	"deepbay/internal/core/say"
	"deepbay/internal/format"
	"deepbay/internal/probe"
	"deepbay/internal/simbench"
)

// observationFile reads what a machine told: Deep Bay's own format, or what a Windows machine's
// classes print.
func observationFile(name string) (power.Observation, error) {
	b, err := os.ReadFile(name)
	if err != nil {
		return power.Observation{}, err
	}
	if probe.IsWindows(b) {
		return probe.Windows(b)
	}
	o, err := format.Observation(b)
	if err != nil {
		return o, fmt.Errorf("%s: %w", name, err)
	}
	return o, nil
}

// observed is a job with what a machine told in it.
func observed(read func(*cobra.Command, string) (job.Job, error), c *cobra.Command, args []string) (job.Job, error) {
	j, err := read(c, args[0])
	if err != nil {
		return j, err
	}
	o, err := observationFile(args[1])
	if err != nil {
		return j, err
	}
	next, _, err := job.Apply(j, job.Change{Do: job.DoObserve, Observation: &o}, job.Stamp{By: "command line", At: time.Now().UTC().Truncate(time.Second)})
	if err != nil {
		return j, say.About(language, &j).Err(err)
	}
	return next, nil
}

// Compared is every line of a job beside what was seen, for programs.
type Compared struct {
	Lines   []say.Line `json:"lines"`
	Strange []say.Text `json:"strange"`
}

func compareCommand() *cobra.Command {
	var asJSON bool
	var read func(*cobra.Command, string) (job.Job, error)
	c := &cobra.Command{
		Use:   "compare JOB.json OBSERVATION.json",
		Short: "Compare what a machine shows with what was foretold",
		Args:  cobra.ExactArgs(2),
		RunE: func(c *cobra.Command, args []string) error {
			j, err := observed(read, c, args)
			if err != nil {
				return err
			}
			view := job.Look(j)
			doc := Compared{say.About(language, &j).Lines(view.Lines), say.About(language, &j).Strange(j.Strange)}
			err = printAs(c.OutOrStdout(), asJSON, doc, func(w io.Writer) { printCompared(w, &j, &doc) })
			if err == nil && slices.ContainsFunc(doc.Lines, func(l say.Line) bool { return l.Verdict == power.Differs }) {
				return errStopped
			}
			return err
		},
	}
	read = stage(c)
	c.Flags().BoolVar(&asJSON, "json", false, "print for programs")
	return c
}

func printCompared(w io.Writer, j *job.Job, doc *Compared) {
	fmt.Fprintf(w, "%s (%s)\n", j.Title, j.Sheet.Name)
	for _, of := range []struct {
		verdict power.Verdict
		title   string
	}{{power.Differs, "differs"}, {power.Explained, "differs, and was explained"}, {power.Agrees, "as foretold"}, {power.Noted, "noted: nothing to compare it with"}, {power.NotLooked, "nobody looked"}} {
		first := true
		for _, l := range doc.Lines {
			if l.Verdict != of.verdict {
				continue
			}
			if first {
				fmt.Fprintf(w, "\n%s\n", words("%s", of.title))
				first = false
			}
			switch {
			case of.verdict == power.NotLooked:
				fmt.Fprintf(w, "  %-44s %s\n", l.About, l.Expected)
			case of.verdict == power.Differs:
				fmt.Fprintf(w, "  %-44s %s\n", l.About, l.Says)
			default:
				fmt.Fprintf(w, "  %-44s %s\n", l.About, l.Seen)
			}
		}
	}
	for i, s := range doc.Strange {
		if i == 0 {
			fmt.Fprintf(w, "\n%s\n", words("not expected"))
		}
		fmt.Fprintf(w, "  %s\n", s)
	}
}

func diagnoseCommand() *cobra.Command {
	var asJSON bool
	var answers []string
	var read func(*cobra.Command, string) (job.Job, error)
	c := &cobra.Command{
		Use:     "diagnose JOB.json OBSERVATION.json",
		Short:   "Say what is wrong with a machine, and what to check first",
		Example: "  deepbay diagnose job.json seen.json\n  deepbay diagnose job.json seen.json --check seat@M2_1=home",
		Args:    cobra.ExactArgs(2),
		RunE: func(c *cobra.Command, args []string) error {
			j, err := observed(read, c, args)
			if err != nil {
				return err
			}
			for _, a := range answers {
				k, is, _ := strings.Cut(a, "=")
				next, _, err := job.Apply(j, job.Change{Do: job.DoCheck, Check: &fault.Answered{Check: fault.ParseCheck(k), Is: fault.Outcome(is)}}, job.Stamp{By: "command line", At: time.Now()})
				if err != nil {
					return fmt.Errorf("--check %s: %w", a, say.About(language, &j).Err(err))
				}
				j = next
			}
			d := j.Diagnosis()
			doc := say.About(language, &j).Trouble(&d)
			err = printAs(c.OutOrStdout(), asJSON, doc, func(w io.Writer) { printTrouble(w, &j, &doc) })
			if err == nil && len(doc.Differs) > 0 {
				return errStopped
			}
			return err
		},
	}
	read = stage(c)
	c.Flags().BoolVar(&asJSON, "json", false, "print for programs")
	c.Flags().StringArrayVar(&answers, "check", nil, "what a check showed, as CHECK=OUTCOME; may be given several times")
	return c
}

func printTrouble(w io.Writer, j *job.Job, t *say.Trouble) {
	fmt.Fprintf(w, "%s (%s)\n\n%s\n", j.Title, j.Sheet.Name, t.Says)
	if t.Danger.String() != "" {
		fmt.Fprintf(w, "\n! %s\n", t.Danger)
	}
	for _, d := range t.Differs {
		fmt.Fprintf(w, "  %s\n", d)
	}
	for _, l := range t.Leaders {
		fmt.Fprintf(w, "\n%3d %%\n", l.Percent)
		for _, f := range l.Faults {
			fmt.Fprintf(w, "  %s\n    %s %s\n", f.Says, words("cure:"), f.Cure)
			if f.Caution.String() != "" {
				fmt.Fprintf(w, "    ! %s\n", f.Caution)
			}
		}
	}
	if n := t.Next; n != nil {
		fmt.Fprintf(w, "\n%s\n  %s (%s, %.1f min)\n", words("check next"), n.Does, n.Check, float64(n.Minutes))
		for _, a := range n.Answers {
			fmt.Fprintf(w, "    %-28s %3d %%  %s\n", label(a), a.Percent, a.Leaves)
		}
	}
	for i, o := range t.Out {
		if i == 0 {
			fmt.Fprintf(w, "\n%s\n", words("ruled out"))
		}
		fmt.Fprintf(w, "  %s\n    %s\n", o.Says, o.By)
	}
}

func label(a say.PossibleAnswer) string {
	if a.Is == "" {
		return a.Says.String()
	}
	return fmt.Sprintf("%s (%s)", a.Says, a.Is)
}

func simCommand() *cobra.Command {
	var names, sets []string
	var seed uint64
	var surprise int
	var out, tree string
	var read func(*cobra.Command, string) (job.Job, error)
	c := &cobra.Command{
		Use:   "sim JOB.json",
		Short: "Power on the simulated machine of a job, with faults in it",
		Long: "The simulated machine has its parts where they are planned and its settings as they were found; set them\n" +
			"with --set. Without --fault it is well; deepbay sim JOB --fault list names what can be wrong with it.",
		Example: "  deepbay sim job.json --fault m2-not-seated@M2_1 --out seen.json\n  deepbay sim job.json --surprise 1 --seed 7 --tree /tmp/machine",
		Args:    cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			j, err := read(c, args[0])
			if err != nil {
				return err
			}
			planned, found := j.PlannedRig(), j.FoundRig()
			b := simbench.Of(&planned, &found, j.FaultWork())
			v := say.About(language, &j)
			w := c.OutOrStdout()
			if slices.Contains(names, "list") {
				for _, f := range j.Case().Faults() {
					fmt.Fprintf(w, "%-44s %s\n", f, v.SuspectOf(f).Says)
				}
				return nil
			}
			for _, n := range names {
				if err := b.Hide(fault.Parse(n), 0); err != nil {
					return fmt.Errorf("--fault %s: %w", n, err)
				}
			}
			b.Surprise(rand.New(rand.NewPCG(seed, 13)), surprise)
			b.Start()
			if len(sets) == 0 { // as planned: making them is what the work order asks for
				for _, st := range j.Sheet.Settings {
					if value := planned.Choice(&st); value != b.Value(&st) {
						sets = append(sets, string(st.ID)+"="+value)
					}
				}
			}
			for _, s := range sets {
				id, value, _ := strings.Cut(s, "=")
				if err := b.Set(machine.SettingID(id), value); err != nil && !errors.Is(err, simbench.ErrBlind) {
					return fmt.Errorf("--set %s: %w", s, err)
				}
			}
			screen := power.Screen("")
			for _, l := range b.Screens() {
				if l.Screen != screen {
					screen = l.Screen
					fmt.Fprintf(w, "\n%s\n", words("%s", screenTitle[screen]))
				}
				fmt.Fprintf(w, "  %-44s %s\n", v.Fact(power.Named(&planned, l.Line)), v.Fact(power.Shown(&planned, l.Is)))
			}
			o, err := b.Observation()
			if err != nil {
				fmt.Fprintf(w, "\n%s\n", words("its system does not run: a probe tells nothing"))
				return nil
			}
			if out != "" {
				if err := writeDocument(out, o); err != nil {
					return err
				}
			}
			if tree != "" {
				return simbench.WriteTree(tree, o.Machine)
			}
			return nil
		},
	}
	read = stage(c)
	c.Flags().StringArrayVar(&names, "fault", nil, "a fault to put in; list names them")
	c.Flags().IntVar(&surprise, "surprise", 0, "how many faults to put in by chance")
	c.Flags().Uint64Var(&seed, "seed", 1, "of the chance")
	c.Flags().StringArrayVar(&sets, "set", nil, "a setting, as SETTING=VALUE; as planned where none is given")
	c.Flags().StringVar(&out, "out", "", "where what a probe would tell is written")
	c.Flags().StringVar(&tree, "tree", "", "an empty folder for the files of the machine, as its kernel would show them")
	return c
}

// screenTitle heads each screen.
var screenTitle = map[power.Screen]string{power.InSetUp: "in set-up", power.InBootList: "in the boot list", power.InInstaller: "in the installer's list", power.InSystem: "in the running system"}

func writeDocument(name string, doc any) error {
	b, err := format.Write(doc)
	if err != nil {
		return err
	}
	return os.WriteFile(name, b, 0o666)
}

// sendPatience is how long sending may take.
const sendPatience = 30 * time.Second

func probeCommand() *cobra.Command {
	var root, out, send, sheet string
	c := &cobra.Command{
		Use:   "probe",
		Short: "Read this Linux machine into an observation",
		Long: "Probe reads what the kernel and firmware tell of this machine. It writes nothing to it, opens no device, and needs\n" +
			"no network unless it is told to send. What it cannot read it names; as root it reads more.",
		Args: cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			o, err := probe.Read(root)
			if err != nil {
				return err
			}
			for _, m := range o.Machine.Missed {
				fmt.Fprintln(c.ErrOrStderr(), words("not read: %s, %s", m.What, unread[m.Why]))
			}
			if sheet != "" {
				return draftInto(c, sheet, o.Machine)
			}
			b, err := format.Write(o)
			if err != nil {
				return err
			}
			switch {
			case out != "":
				err = os.WriteFile(out, b, 0o666)
			case send == "":
				_, err = c.OutOrStdout().Write(b)
			}
			if err != nil || send == "" {
				return err
			}
			client := http.Client{Timeout: sendPatience}
			answer, err := client.Post(send, "application/json", bytes.NewReader(b))
			if err != nil {
				return err
			}
			defer answer.Body.Close()
			if answer.StatusCode != http.StatusNoContent {
				why, _ := io.ReadAll(io.LimitReader(answer.Body, 4<<10))
				return fmt.Errorf("not taken: %s %s", answer.Status, bytes.TrimSpace(why))
			}
			fmt.Fprintln(c.OutOrStdout(), words("sent; drives: %d, memory slots: %d", len(o.Machine.Drives), len(o.Machine.Memory.Modules)))
			return nil
		},
	}
	c.Flags().StringVar(&root, "root", "/", "where the machine's files begin")
	c.Flags().StringVar(&out, "out", "", "file to write; standard output if nowhere is named and nothing is sent")
	c.Flags().StringVar(&sheet, "draft", "", "write a sheet of the machine to this file, and say what lies in it and what a probe cannot see")
	c.Flags().StringVar(&send, "send", "", "address to send it to, as the job's page shows it")
	return c
}

// unread is why something was not read, in words.
var unread = map[power.Unread]string{power.NeedsRoot: "which needs root", power.NotOffered: "which this machine does not offer", power.Damaged: "which is damaged", power.TooBig: "which is too long to be true", power.NotAFile: "which is no file"}

// draftInto writes the sheet of a machine, and says what lies in it and what is open.
func draftInto(c *cobra.Command, name string, m *power.Inventory) error {
	d, err := draft.Of(m)
	if err != nil {
		return language.Err(err)
	}
	doc := say.Draft(language, &d)
	if err := writeDocument(name, doc.Sheet); err != nil {
		return err
	}
	w := c.OutOrStdout()
	fmt.Fprintf(w, "%s\n", words("what lies in it"))
	for _, l := range doc.Lines {
		fmt.Fprintf(w, "  %s\n", l)
	}
	fmt.Fprintf(w, "\n%s\n", words("what a probe cannot see"))
	for _, a := range doc.Asks {
		fmt.Fprintf(w, "  %s\n", a)
	}
	return nil
}
