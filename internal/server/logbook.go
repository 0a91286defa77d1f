package server

// This file is the logbook: every line of every journal by words, hands, days and things; the life
// of a machine and of a part; what a model showed again and again; the figures of the shop; and the
// whole shop as one file.

import (
	"cmp"
	"context"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"net/http"
	"os"
	"slices"
	"strconv"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/job"
	"deepbay/internal/core/logbook"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/say"
	"deepbay/internal/store"
)

// LogbookPage is a page of the logbook, the latest line first.
type LogbookPage struct {
	Lines []LogbookLine `json:"lines"`
	Next  string        `json:"next,omitempty"` // where the next page begins
	Left  int           `json:"left,omitempty"` // lines that are not taken in yet
	Jobs  []LogbookHit  `json:"jobs"`           // machines that carry what is looked for
	Parts []LogbookHit  `json:"parts"`          // parts of the shelf that do
	Says  say.Text      `json:"says"`
}

// LogbookLine is one line of a journal.
type LogbookLine struct {
	Kind     store.LogKind `json:"kind"`
	Thing    string        `json:"thing"`
	Called   string        `json:"called"`
	Revision int           `json:"revision"`
	At       time.Time     `json:"at"`
	By       say.Name      `json:"by"`
	Says     say.Text      `json:"says"`
}

// LogbookHit is a job or a part that was found.
type LogbookHit struct {
	ID     string `json:"id"`
	Called string `json:"called"`
	Serial string `json:"serial,omitempty"` // of a part: the whole number that was looked for
}

// LifeView is the life of a machine, or of a part by its serial number.
type LifeView struct {
	Title string        `json:"title"`
	Tag   string        `json:"tag,omitempty"` // of a machine, or the serial number of a part
	Owner string        `json:"owner,omitempty"`
	Model string        `json:"model,omitempty"`
	Jobs  []JobRef      `json:"jobs"`
	Life  say.LifeWords `json:"life"`
	Shelf []LogbookLine `json:"shelf"` // what the shelf's journal says of it
	Says  say.Text      `json:"says"`
}

// ModelView is what jobs on one model showed of it beyond its sheet.
type ModelView struct {
	Sheet   machine.ID   `json:"sheet"`
	Name    string       `json:"name"`
	Differs []Recurring  `json:"differs"`
	Proofs  []ModelProof `json:"proofs"`
}

// Recurring is in what machines of a model are not as its sheet says.
type Recurring struct {
	Says  say.Text `json:"says"`
	Job   job.ID   `json:"job"` // the latest that says so
	Title string   `json:"title"`
	ID    int      `json:"id"` // of the difference there
	Times int      `json:"times"`
	Fits  bool     `json:"fits,omitempty"` // it can be written into the sheet
}

// ModelProof is what a job showed and the sheet does not say yet.
type ModelProof struct {
	Says   say.Text         `json:"says"`
	Job    job.ID           `json:"job"`
	Title  string           `json:"title"`
	Of     job.ProvenOf     `json:"of"`
	Socket machine.SocketID `json:"socket,omitempty"`
}

const (
	linesOnPage = 50
	mostInFile  = 20_000 // lines of one file
	hitsShown   = 8
	hitLetters  = 3   // that a word has at least by which machines and parts are looked for
	soonLogged  = 400 // lines that one question takes in before it is answered
)

// LogWords is what lines of journals are found by: what they say.
func LogWords(in say.Language) store.Words {
	if in == nil {
		in = say.Plain
	}
	return func(j *job.Job, e store.Entry) string {
		if j == nil {
			j = &job.Job{}
		}
		return say.About(in, j).Event(deed(e)).String()
	}
}

// catchUp takes in what was written since, and says how much is left. What cannot be written now
// is there the next time; what is there can be read.
func (s *api) catchUp(ctx context.Context) int {
	left, err := s.Data.CatchUp(ctx, LogWords(s.Language), soonLogged)
	if err != nil && ctx.Err() == nil {
		s.Log.Warn("the logbook lacks its latest lines", "error", err)
	}
	return left
}

// logQuery reads what is asked of the logbook.
func (s *api) logQuery(c *gin.Context) (store.LogQuery, error) {
	q := store.LogQuery{Words: c.Query("q"), Who: c.Query("who"), Kind: store.LogKind(c.Query("kind")), Thing: c.Query("thing"), Model: machine.ID(c.Query("model")), After: c.Query("after")}
	if len(q.Words) > longestQuery {
		return q, problem.List{{Pointer: "/q", Says: fmt.Sprintf("what is looked for has at most %d letters", longestQuery)}}
	}
	if q.Kind != "" && !slices.Contains(q.Kind.Values(), string(q.Kind)) {
		return q, problem.List{{Pointer: "/kind", Says: fmt.Sprintf("%q is no kind of line", q.Kind), Cure: "write job, sheet or part"}}
	}
	for name, at := range map[string]*time.Time{"from": &q.From, "to": &q.To} {
		text := c.Query(name)
		if text == "" {
			continue
		}
		day, err := time.ParseInLocation(time.DateOnly, text, s.Now().Location())
		if err != nil {
			return q, problem.List{{Pointer: "/" + name, Says: fmt.Sprintf("%q is no day", text), Cure: "write it as 2026-01-31"}}
		}
		if *at = day; name == "to" {
			*at = day.AddDate(0, 0, 1) // that day included
		}
	}
	return q, nil
}

// logbook is a page of the logbook.
func (s *api) logbook(c *gin.Context) error {
	q, err := s.logQuery(c)
	if err != nil {
		return err
	}
	ctx := c.Request.Context()
	out := LogbookPage{Lines: []LogbookLine{}, Jobs: []LogbookHit{}, Parts: []LogbookHit{}, Left: s.catchUp(ctx)}
	q.Most = linesOnPage
	p, err := s.logged(ctx, q)
	if err != nil {
		return err
	}
	out.Next = p.Next
	out.Lines = s.logLines(ctx, p.Lines)
	if q.After == "" && slices.ContainsFunc(strings.Fields(q.Words), func(w string) bool { return len([]rune(fact.Fold(w))) >= hitLetters }) {
		if err := s.hits(ctx, q.Words, &out); err != nil {
			return err
		}
	}
	switch {
	case p.Short:
		out.Says = s.Language.Says(fmt.Sprintf("%s, and there may be more: many words begin so, type more of them", many(len(out.Lines), "line", "lines")))
	case len(out.Lines) == 0:
		out.Says = s.Language.Says("No line says so.")
	case out.Next != "":
		out.Says = s.Language.Says(fmt.Sprintf("the latest %d lines; there are earlier ones", len(out.Lines)))
	default:
		out.Says = s.Language.Says(many(len(out.Lines), "line", "lines"))
	}
	c.JSON(http.StatusOK, out)
	return nil
}

func (s *api) logged(ctx context.Context, q store.LogQuery) (store.LogPage, error) {
	p, err := s.Data.Logged(ctx, q)
	if errors.Is(err, store.ErrLogPlace) {
		err = problem.List{{Pointer: "/after", Says: err.Error(), Cure: "take it from the page before"}}
	}
	return p, err
}

// logLines words lines.
func (s *api) logLines(ctx context.Context, list []store.LogLine) []LogbookLine {
	out := make([]LogbookLine, len(list))
	jobs := map[string]*job.Job{}
	for i := range list {
		l := &list[i]
		k := string(l.Kind) + " " + l.Thing
		j := jobs[k]
		if j == nil {
			j = &job.Job{}
			if l.Kind == store.OfJob {
				if k, err := s.Data.Job(ctx, job.ID(l.Thing)); err == nil {
					j = &k.Job
				}
			}
			jobs[k] = j
		}
		out[i] = LogbookLine{l.Kind, l.Thing, cmp.Or(l.Called, l.Thing), l.Revision, l.At, say.Name(l.By), say.About(s.Language, j).Event(deed(l.Entry))}
	}
	return out
}

// hits is the machines and parts that carry what is looked for.
func (s *api) hits(ctx context.Context, words string, out *LogbookPage) error {
	list, err := s.Data.Jobs(ctx, store.Page{Query: words, Most: hitsShown})
	if err != nil {
		return err
	}
	cards, err := s.cards(ctx, list.Stands)
	if err != nil {
		return err
	}
	for i := range cards {
		out.Jobs = append(out.Jobs, LogbookHit{ID: string(cards[i].Ref.ID), Called: cards[i].Ref.Title})
	}
	shelf, err := s.Data.Shelf(ctx)
	if err != nil {
		return err
	}
	want := fact.Fold(words)
	for i := range shelf {
		if !carries(&shelf[i], want) {
			continue
		}
		hit := LogbookHit{ID: string(shelf[i].Part.ID), Called: shelf[i].Part.Name}
		for _, serial := range shelf[i].Serials {
			if fact.Fold(serial) == want {
				hit.Serial = serial
			}
		}
		if out.Parts = append(out.Parts, hit); len(out.Parts) == hitsShown {
			break
		}
	}
	return nil
}

// life is the life of the machine of ?job=, or of the part with ?serial=.
func (s *api) life(c *gin.Context) error {
	out, err := s.lived(c)
	if err != nil {
		return err
	}
	c.JSON(http.StatusOK, out)
	return nil
}

func (s *api) lived(c *gin.Context) (LifeView, error) {
	ctx := c.Request.Context()
	if serial := strings.TrimSpace(c.Query("serial")); serial != "" {
		return s.livedPart(ctx, serial)
	}
	k, err := s.Data.Job(ctx, job.ID(c.Query("job")))
	if err != nil {
		return LifeView{}, err
	}
	jobs, err := s.Data.Carrying(ctx, cmp.Or(k.Job.Tag, k.Job.Title))
	if err != nil {
		return LifeView{}, err
	}
	own := slices.DeleteFunc(jobs, func(j job.Job) bool { return logbook.MachineOf(&j) != logbook.MachineOf(&k.Job) })
	if !slices.ContainsFunc(own, func(j job.Job) bool { return j.ID == k.Job.ID }) { // with a title and no tag that nothing is found by
		own = append(own, k.Job)
	}
	l := logbook.OfMachine(own)
	return LifeView{Title: k.Job.Title, Tag: k.Job.Tag, Owner: k.Job.Owner, Model: k.Job.Sheet.Name, Jobs: refs(own), Life: say.Lived(s.Language, &l), Shelf: []LogbookLine{},
		Says: s.Language.Says(fmt.Sprintf("%s on this machine", many(len(own), "job", "jobs")))}, nil
}

func (s *api) livedPart(ctx context.Context, serial string) (LifeView, error) {
	jobs, err := s.Data.Carrying(ctx, serial)
	if err != nil {
		return LifeView{}, err
	}
	l := logbook.OfSerial(serial, jobs)
	out := LifeView{Title: serial, Tag: serial, Jobs: []JobRef{}, Life: say.Lived(s.Language, &l), Shelf: []LogbookLine{}}
	jobs = slices.DeleteFunc(jobs, func(j job.Job) bool {
		return !slices.ContainsFunc(j.Items, func(it job.Item) bool { return fact.Fold(it.Serial) == fact.Fold(serial) })
	})
	out.Jobs = refs(jobs)
	if len(l.Stays) > 0 {
		out.Title = l.Stays[len(l.Stays)-1].Part.Name
	}
	s.catchUp(ctx)
	p, err := s.Data.Logged(ctx, store.LogQuery{Words: serial, Kind: store.OfPart, Most: linesOnPage})
	if err != nil {
		return out, err
	}
	out.Shelf = s.logLines(ctx, p.Lines)
	shelf, err := s.Data.Shelf(ctx)
	if err != nil {
		return out, err
	}
	says := fmt.Sprintf("%s with it", many(len(jobs), "job", "jobs"))
	for i := range shelf {
		if slices.ContainsFunc(shelf[i].Serials, func(t string) bool { return fact.Fold(t) == fact.Fold(serial) }) {
			out.Title = shelf[i].Part.Name
			says += "; it lies on the shelf"
		}
	}
	if len(jobs) == 0 && len(out.Shelf) == 0 && out.Title == serial {
		return out, fmt.Errorf("a part with serial number %q: %w", serial, store.ErrNotFound)
	}
	out.Says = s.Language.Says(says)
	return out, nil
}

func refs(jobs []job.Job) []JobRef {
	out := []JobRef{}
	for i := range jobs {
		out = append(out, JobRef{jobs[i].ID, jobs[i].Title})
	}
	return out
}

// model is what jobs on a model showed of it beyond its sheet.
func (s *api) model(c *gin.Context) error {
	k, err := s.Data.Sheet(c.Request.Context(), machine.ID(c.Param("id")))
	if err != nil {
		return err
	}
	jobs, err := s.Data.Closed(c.Request.Context(), k.Sheet.ID)
	if err != nil {
		return err
	}
	out := ModelView{Sheet: k.Sheet.ID, Name: k.Sheet.Name, Differs: []Recurring{}, Proofs: []ModelProof{}}
	for _, d := range logbook.Differing(&k.Sheet, jobs) {
		out.Differs = append(out.Differs, Recurring{say.About(s.Language, d.Job).Fact(d.Says), d.Job.ID, d.Job.Title, d.ID, d.Times, d.Fits})
	}
	out.Proofs = s.proofs(&k.Sheet, jobs)
	c.JSON(http.StatusOK, out)
	return nil
}

// proofs is what jobs showed and the sheet of their model does not say.
func (s *api) proofs(sheet *machine.Sheet, jobs []job.Job) []ModelProof {
	out := []ModelProof{}
	for _, p := range logbook.Proofs(sheet, jobs) {
		out = append(out, ModelProof{say.About(s.Language, p.Job).Fact(p.Proven.Says), p.Job.ID, p.Job.Title, p.Of, p.Socket})
	}
	return out
}

// mostMonths is how far back figures go.
const mostMonths = 120

// figures is what finished jobs came to in the last ?months=.
func (s *api) figures(c *gin.Context) error {
	out, err := s.figured(c)
	if err != nil {
		return err
	}
	c.JSON(http.StatusOK, out)
	return nil
}

func (s *api) figured(c *gin.Context) (say.Figures, error) {
	n, err := strconv.Atoi(cmp.Or(c.Query("months"), "12"))
	if err != nil || n < 1 || n > mostMonths {
		return say.Figures{}, problem.List{{Pointer: "/months", Says: fmt.Sprintf("%q is no number of months", c.Query("months")), Cure: fmt.Sprintf("write one from 1 to %d", mostMonths)}}
	}
	s.catchUp(c.Request.Context())
	months := logbook.Months(s.Now(), n)
	list, err := s.Data.Figures(c.Request.Context(), months[0], months[n-1])
	if err != nil {
		return say.Figures{}, err
	}
	return say.FiguresOf(s.Language, months, list), nil
}

// logbookFile is the lines that answer a query as a file: ?as=csv or json.
func (s *api) logbookFile(c *gin.Context) error {
	q, err := s.logQuery(c)
	if err != nil {
		return err
	}
	ctx := c.Request.Context()
	s.catchUp(ctx)
	lines := []LogbookLine{}
	for q.Most = 500; len(lines) < mostInFile; {
		p, err := s.logged(ctx, q)
		if err != nil {
			return err
		}
		lines = append(lines, s.logLines(ctx, p.Lines)...)
		if q.After = p.Next; q.After == "" {
			break
		}
	}
	rows := [][]string{{"at", "by", "kind", "thing", "called", "revision", "says"}}
	for _, l := range lines {
		rows = append(rows, []string{l.At.Format(time.RFC3339), string(l.By), string(l.Kind), l.Thing, l.Called, strconv.Itoa(l.Revision), l.Says.String()})
	}
	return sendAs(c, "logbook", rows, lines)
}

// lifeFile is a life as a file.
func (s *api) lifeFile(c *gin.Context) error {
	l, err := s.lived(c)
	if err != nil {
		return err
	}
	rows := [][]string{{"what", "from", "to", "job", "machine", "piece", "serial", "place", "says"}}
	for _, e := range l.Life.Events {
		rows = append(rows, []string{"event", e.At.Format(time.RFC3339), "", string(e.Job), e.Title, "", "", "", e.Says.String()})
	}
	for _, k := range l.Life.Stays {
		to := ""
		if k.To != nil {
			to = k.To.Format(time.RFC3339)
		}
		rows = append(rows, []string{"stay", k.From.Format(time.RFC3339), to, string(k.Job), k.Title, k.Name, k.Serial, k.Place, k.Says.String()})
	}
	return sendAs(c, "life", rows, l)
}

// figuresFile is figures as a file.
func (s *api) figuresFile(c *gin.Context) error {
	f, err := s.figured(c)
	if err != nil {
		return err
	}
	head := []string{"of", "name", "n", "took", "expected", "unit"}
	for _, m := range f.Months {
		head = append(head, string(m))
	}
	rows := [][]string{head}
	number := func(x float64) string { return strconv.FormatFloat(x, 'f', -1, 64) }
	for _, t := range f.Tables {
		for _, r := range t.Rows {
			row := []string{string(t.Of), r.Name.String(), strconv.Itoa(r.N), number(r.Took), number(r.Expected), t.Unit.String()}
			for _, m := range r.Months {
				row = append(row, number(m))
			}
			rows = append(rows, row)
		}
	}
	return sendAs(c, "figures", rows, f)
}

// sendAs sends a list as the file that was asked for: CSV, or the same as JSON.
func sendAs(c *gin.Context, name string, rows [][]string, v any) error {
	switch as := c.Query("as"); as {
	case "json":
		c.Header("Content-Disposition", `attachment; filename="`+name+`.json"`)
		c.IndentedJSON(http.StatusOK, v)
		return nil
	case "csv":
		c.Header("Content-Disposition", `attachment; filename="`+name+`.csv"`)
		c.Header("Content-Type", "text/csv; charset=utf-8")
		w := csv.NewWriter(c.Writer)
		for _, row := range rows {
			for i := range row {
				row[i] = inert(row[i])
			}
		}
		return w.WriteAll(rows)
	default:
		return problem.List{{Pointer: "/as", Says: fmt.Sprintf("%q is no kind of file", as), Cure: "write csv or json"}}
	}
}

// inert keeps a spreadsheet from taking text for a formula.
func inert(text string) string {
	if text != "" && strings.ContainsRune("=+-@\t\r", rune(text[0])) {
		if _, err := strconv.ParseFloat(text, 64); err != nil {
			return "'" + text
		}
	}
	return text
}

// maxShop is how large the file of a whole shop may be that comes in here.
const maxShop = 8 << 30

// patient lets a request take as long as a whole shop does.
func (s *api) patient(c *gin.Context) {
	ctl, until := http.NewResponseController(c.Writer), time.Now().Add(time.Hour)
	if err := errors.Join(ctl.SetReadDeadline(until), ctl.SetWriteDeadline(until)); err != nil {
		s.Log.Warn("a large shop may take longer than its connection lasts", "error", err)
	}
}

// shopFile is the whole shop as one file.
func (s *api) shopFile(c *gin.Context) error {
	s.patient(c)
	f, err := os.CreateTemp("", "deepbay-shop-")
	if err != nil {
		return err
	}
	defer os.Remove(f.Name())
	defer f.Close()
	if _, err := s.Data.WriteShop(c.Request.Context(), f); err != nil {
		return err
	}
	c.FileAttachment(f.Name(), "shop-"+s.Now().Format("20060102")+".zip")
	return nil
}

// bringShop puts a whole shop into a data file in which there is nothing.
func (s *api) bringShop(c *gin.Context) error {
	s.patient(c)
	f, err := os.CreateTemp("", "deepbay-shop-")
	if err != nil {
		return err
	}
	defer os.Remove(f.Name())
	_, err = io.Copy(f, http.MaxBytesReader(c.Writer, c.Request.Body, maxShop))
	if err := errors.Join(err, f.Close()); err != nil {
		return err
	}
	about, err := s.Data.BringShop(c.Request.Context(), f.Name())
	var of *store.BadFile
	switch {
	case errors.Is(err, store.ErrNotEmpty):
		return &conflict{ProblemDoc{Title: "not empty", Status: http.StatusConflict, Detail: err.Error() + "; nothing was changed"}}
	case errors.As(err, &of):
		return problem.List{{Pointer: "/" + of.Name, Says: of.Why.Error(), Cure: "take the shop along again where it came from; nothing was changed"}}
	case err != nil:
		return err
	}
	c.JSON(http.StatusOK, Imported{"shop", "", fmt.Sprintf("%d sheets, %d kinds of part, %d jobs", len(about.Sheets), len(about.Parts), len(about.Jobs))})
	return nil
}
