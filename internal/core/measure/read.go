package measure

// This file reads measurements that other tools wrote: the JSON of fio, an open-source I/O benchmark,
// and a plain CSV file, a line a run.

import (
	"bytes"
	"encoding/csv"
	"encoding/json"
	"errors"
	"io"
	"math"
	"slices"
	"strconv"
	"strings"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/quantity"
)

// What is wrong with a file of measurements, or with a series.
const (
	NotMeasured fact.Code = "measure/not-measured" // neither of the formats
	NotJSON     fact.Code = "measure/not-json"     // what the reader says
	NotCSV      fact.Code = "measure/not-csv"      // what the reader says
	NoJobs      fact.Code = "measure/no-jobs"
	NoRate      fact.Code = "measure/no-rate"
	NoColumn    fact.Code = "measure/no-column"     // column, all columns
	NoSuchWhat  fact.Code = "measure/no-such-what"  // what was written, what there is
	NoSuchWhen  fact.Code = "measure/no-such-when"  // what was written
	NoSuchBlock fact.Code = "measure/no-such-block" // what was written
	NoSuchDepth fact.Code = "measure/no-such-depth" // what was written
	OutOfBounds fact.Code = "measure/out-of-bounds" // what was written, least, most, unit
	NoRuns      fact.Code = "measure/no-runs"
	TooManyRuns fact.Code = "measure/too-many-runs" // most
	OneSubject  fact.Code = "measure/one-subject"
	OnlyOfRates fact.Code = "measure/only-of-rates"
	OnlyOfSound fact.Code = "measure/only-of-sound"
	NeedsName   fact.Code = "measure/needs-name"
	TooLongName fact.Code = "measure/too-long" // most letters
)

// MostRuns is how many runs a series keeps.
const MostRuns = 200

// columns are those of a CSV file; the last two may be left away.
var columns = []string{"what", "when", "of", "block", "depth", "value", "background"}

// Columns is the head line of a CSV file.
func Columns() string { return strings.Join(columns, ",") }

// Read reads measurements, by what the file begins with. Series are of no drive yet, and those of a
// benchmark are from after the work until somebody says otherwise. An error is a problem.List.
func Read(text []byte) ([]Series, error) {
	text = bytes.TrimSpace(bytes.TrimPrefix(text, []byte("\ufeff")))
	switch {
	case len(text) == 0:
		return nil, problem.List{{Fact: fact.Of(NotMeasured)}}
	case text[0] == '{':
		return readFio(text)
	}
	return readCSV(text)
}

// fio is what is read of a result of fio (its output format json).
type fio struct {
	Global map[string]string `json:"global options"`
	Jobs   []struct {
		Name    string            `json:"jobname"`
		Options map[string]string `json:"job options"`
		Read    fioSide           `json:"read"`
		Write   fioSide           `json:"write"`
	} `json:"jobs"`
	Version string `json:"fio version"`
}

// fioSide is one direction of a job.
type fioSide struct {
	Bytes float64  `json:"io_bytes"`
	Rate  *float64 `json:"bw_bytes"` // bytes a second
	KiB   float64  `json:"bw"`       // KiB a second, in all versions
}

func (s *fioSide) rate() float64 {
	if s.Rate != nil {
		return *s.Rate
	}
	return s.KiB * 1024
}

func readFio(text []byte) ([]Series, error) {
	var in fio
	if err := json.Unmarshal(text, &in); err != nil {
		at := ""
		if wrong := new(json.UnmarshalTypeError); errors.As(err, &wrong) {
			at = "/" + strings.ReplaceAll(wrong.Field, ".", "/")
		}
		return nil, problem.List{{Pointer: at, Fact: fact.Of(NotJSON, fact.Typed(err.Error()))}}
	}
	if len(in.Jobs) == 0 {
		return nil, problem.List{{Pointer: "/jobs", Fact: fact.Of(NoJobs)}}
	}
	var out []Series
	var list problem.List
	for i := range in.Jobs {
		j, at := &in.Jobs[i], "/jobs/"+strconv.Itoa(i)
		option := func(name, usual string) string {
			if v, ok := j.Options[name]; ok {
				return v
			}
			if v, ok := in.Global[name]; ok {
				return v
			}
			return usual
		}
		// fio's own defaults where an option is not given: blocks of 4 KiB, one request at once, one process.
		block, depth := fioSize(option("bs", "4k")), fioNumber(option("iodepth", "1"))*fioNumber(option("numjobs", "1"))
		if block < 512 || block > quantity.GiB {
			list.Add(at+"/bs", fact.Of(NoSuchBlock, fact.Typed(option("bs", "4k"))))
			continue
		}
		if depth < 1 || depth > 65536 {
			list.Add(at+"/iodepth", fact.Of(NoSuchDepth, fact.Typed(option("iodepth", "1"))))
			continue
		}
		random := strings.HasPrefix(option("rw", option("readwrite", "read")), "rand")
		what := map[bool][2]What{false: {ReadsOn, WritesOn}, true: {Reads, Writes}}[random]
		n := len(list) + len(out)
		read := false
		for k, side := range []*fioSide{&j.Read, &j.Write} {
			v := side.rate() / 1e6
			if v == 0 && side.Bytes == 0 {
				continue
			}
			read = true
			if least, most := MBps.Bounds(); !(v >= least && v <= most) {
				list.Add(at+"/"+[]string{"read", "write"}[k]+"/bw_bytes", fact.Of(OutOfBounds, fact.Typed(number(v)), fact.Typed(number(least)), fact.Typed(number(most)), fact.Typed(MBps)))
				continue
			}
			out = join(out, Series{What: what[k], When: After, Of: clip(j.Name), BlockBytes: block, Depth: depth, Runs: []float64{v}, With: clip(in.Version)})
		}
		if !read && n == len(list)+len(out) {
			list.Add(at, fact.Of(NoRate))
		}
	}
	return finish(out, list)
}

// clip keeps of a name what a series keeps.
func clip(s string) string {
	if r := []rune(strings.TrimSpace(s)); len(r) > 120 {
		return string(r[:120])
	}
	return strings.TrimSpace(s)
}

// fioSize reads a size as fio writes them: "4k", "1m", "4096", "4096B", "4k,4k"; k and m are powers of
// two. 0 is none.
func fioSize(s string) quantity.Bytes {
	s, _, _ = strings.Cut(strings.ToLower(strings.TrimSpace(s)), ",")
	s = strings.TrimSuffix(strings.TrimSuffix(s, "b"), "i")
	unit := quantity.Bytes(1)
	for letter, of := range map[string]quantity.Bytes{"k": quantity.KiB, "m": quantity.MiB, "g": quantity.GiB} {
		if t, ok := strings.CutSuffix(s, letter); ok {
			s, unit = t, of
			break
		}
	}
	n, err := strconv.ParseInt(s, 10, 64)
	if err != nil || n < 1 || n > int64(quantity.GiB) {
		return 0
	}
	return quantity.Bytes(n) * unit
}

func fioNumber(s string) int {
	n, err := strconv.Atoi(strings.TrimSpace(s))
	if err != nil || n < 1 || n > 65536 {
		return 0
	}
	return n
}

// join adds the runs of a series to the one of the same thing, if there is one.
func join(all []Series, s Series) []Series {
	for i := range all {
		if t := &all[i]; t.Same(&s) && t.When == s.When {
			t.Runs, t.Background = append(t.Runs, s.Runs...), append(t.Background, s.Background...)
			return all
		}
	}
	return append(all, s)
}

func finish(all []Series, list problem.List) ([]Series, error) {
	for i := range all {
		if len(all[i].Runs) > MostRuns {
			list.Add("", fact.Of(TooManyRuns, MostRuns))
			break
		}
	}
	if err := list.Err(); err != nil {
		return nil, err
	}
	return all, nil
}

func number(v float64) string { return strconv.FormatFloat(v, 'g', 6, 64) }

func readCSV(text []byte) ([]Series, error) {
	r := csv.NewReader(bytes.NewReader(text))
	r.FieldsPerRecord, r.TrimLeadingSpace = -1, true
	head, err := r.Read()
	if err != nil {
		return nil, problem.List{{Pointer: "/1", Fact: fact.Of(NotCSV, fact.Typed(err.Error()))}}
	}
	at := map[string]int{}
	for i, h := range head {
		at[strings.ToLower(strings.TrimSpace(h))] = i
	}
	for _, need := range []string{"what", "value"} {
		if _, ok := at[need]; !ok {
			return nil, problem.List{{Pointer: "/1", Fact: fact.Of(NoColumn, fact.Typed(need), fact.Typed(Columns()))}}
		}
	}
	var out []Series
	var list problem.List
	for {
		row, err := r.Read()
		if err == io.EOF {
			break
		}
		if err != nil {
			return nil, problem.List{{Pointer: "", Fact: fact.Of(NotCSV, fact.Typed(err.Error()))}}
		}
		line, _ := r.FieldPos(0)
		if s, ok := readRow(row, at, "/"+strconv.Itoa(line), &list); ok {
			out = join(out, s)
		}
		if len(list) > 20 {
			break
		}
	}
	if len(out) == 0 && len(list) == 0 {
		list.Add("", fact.Of(NoRuns))
	}
	return finish(out, list)
}

// readRow reads one line of a CSV file, which is one run.
func readRow(row []string, at map[string]int, place string, list *problem.List) (Series, bool) {
	cell := func(name string) string {
		if i, ok := at[name]; ok && i < len(row) {
			return strings.TrimSpace(row[i])
		}
		return ""
	}
	n := len(*list)
	s := Series{What: What(strings.ReplaceAll(strings.ToLower(cell("what")), " ", "-")), When: When(strings.ToLower(cell("when"))), Of: clip(cell("of"))}
	if !slices.Contains(s.What.Values(), string(s.What)) {
		list.Add(place+"/what", fact.Of(NoSuchWhat, fact.Typed(cell("what")), fact.Typed(strings.Join(s.What.Values(), ", "))))
	}
	if s.When == "" {
		s.When = After
	}
	if !slices.Contains(s.When.Values(), string(s.When)) {
		list.Add(place+"/when", fact.Of(NoSuchWhen, fact.Typed(cell("when"))))
	}
	if b := cell("block"); b != "" {
		v, err := quantity.ParseBinary(b)
		if s.BlockBytes = v; err != nil || v < 512 || v > quantity.GiB {
			list.Add(place+"/block", fact.Of(NoSuchBlock, fact.Typed(b)))
		}
	}
	if d := cell("depth"); d != "" {
		if s.Depth = fioNumber(d); s.Depth == 0 {
			list.Add(place+"/depth", fact.Of(NoSuchDepth, fact.Typed(d)))
		}
	}
	for _, name := range []string{"value", "background"} {
		text := cell(name)
		if text == "" && name == "background" {
			continue
		}
		v, err := strconv.ParseFloat(strings.Replace(text, ",", ".", 1), 64)
		least, most := s.What.Unit().Bounds()
		if err != nil || math.IsNaN(v) || v < least || v > most {
			list.Add(place+"/"+name, fact.Of(OutOfBounds, fact.Typed(text), fact.Typed(number(least)), fact.Typed(number(most)), fact.Typed(s.What.Unit())))
		} else if name == "value" {
			s.Runs = []float64{v}
		} else {
			s.Background = []float64{v}
		}
	}
	return s, n == len(*list)
}

// Check reports what is wrong with a series, under the pointers of its fields.
func (s *Series) Check() problem.List {
	var l problem.List
	u := s.What.Unit()
	least, most := u.Bounds()
	if !slices.Contains(s.What.Values(), string(s.What)) {
		l.Add("/what", fact.Of(NoSuchWhat, fact.Typed(s.What), fact.Typed(strings.Join(s.What.Values(), ", "))))
		return l
	}
	if !slices.Contains(s.When.Values(), string(s.When)) {
		l.Add("/when", fact.Of(NoSuchWhen, fact.Typed(s.When)))
	}
	switch n := len(s.Runs); {
	case n == 0:
		l.Add("/runs", fact.Of(NoRuns))
	case n > MostRuns || len(s.Background) > MostRuns:
		l.Add("/runs", fact.Of(TooManyRuns, MostRuns))
	}
	for name, list := range map[string][]float64{"/runs/": s.Runs, "/background/": s.Background} {
		for i, v := range list {
			if !(v >= least && v <= most) {
				l.Add(name+strconv.Itoa(i), fact.Of(OutOfBounds, fact.Typed(number(v)), fact.Typed(number(least)), fact.Typed(number(most)), fact.Typed(u)))
			}
		}
	}
	if len(s.Background) > 0 && !s.What.Sound() {
		l.Add("/background", fact.Of(OnlyOfSound))
	}
	if !s.What.Rate() && (s.BlockBytes != 0 || s.Depth != 0) {
		l.Add("/blockBytes", fact.Of(OnlyOfRates))
	}
	if s.Item != "" && s.Array != "" {
		l.Add("/array", fact.Of(OneSubject))
	}
	if s.What == Load && strings.TrimSpace(s.Of) == "" {
		l.Add("/of", fact.Of(NeedsName))
	}
	if len([]rune(s.Of)) > 120 || len([]rune(s.With)) > 120 {
		l.Add("/of", fact.Of(TooLongName, 120))
	}
	return l
}
