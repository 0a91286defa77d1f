package format_test

import (
	"encoding/json"
	"errors"
	"io/fs"
	"maps"
	"math/rand"
	"reflect"
	"slices"
	"strings"
	"testing"

	"deepbay/demo"
	"deepbay/internal/core/fact"
	"deepbay/internal/core/job"
	"deepbay/internal/core/plan"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/say"
	"deepbay/internal/core/shorthand"
	"deepbay/internal/format"
)

func demoFile(t testing.TB, name string) string {
	t.Helper()
	b, err := demo.Files.ReadFile(name)
	if err != nil {
		t.Fatal(err)
	}
	return string(b)
}

// Every file of the demo shop is read, written and read again to the same
// bytes, and a job carries the very sheet and parts of the shop.
func TestDemoFiles(t *testing.T) {
	err := fs.WalkDir(demo.Files, ".", func(path string, d fs.DirEntry, err error) error {
		if err != nil || !strings.HasSuffix(path, ".json") {
			return err
		}
		text := demoFile(t, path)
		var v any
		switch {
		case strings.HasPrefix(path, "sheets/"):
			v, err = format.Sheet([]byte(text))
		case strings.HasPrefix(path, "parts/"):
			v, err = format.Part([]byte(text))
		default:
			j, jerr := format.Job([]byte(text))
			if v, err = j, jerr; err == nil {
				matchShop(t, path, j)
			}
		}
		if err != nil {
			t.Errorf("%s: %v", path, err)
			return nil
		}
		if back, err := format.Write(v); err != nil || string(back) != text {
			t.Errorf("%s is not written as it was read (%v)", path, err)
		}
		return nil
	})
	if err != nil {
		t.Fatal(err)
	}
}

func matchShop(t *testing.T, path string, j job.Job) {
	t.Helper()
	if s, err := format.Sheet([]byte(demoFile(t, "sheets/"+string(j.Sheet.ID)+".sheet.json"))); err != nil || !reflect.DeepEqual(s, j.Sheet) {
		t.Errorf("%s carries another %s than the shop's (%v)", path, j.Sheet.ID, err)
	}
	for _, p := range j.Parts {
		if q, err := format.Part([]byte(demoFile(t, "parts/"+string(p.ID)+".part.json"))); err != nil || !reflect.DeepEqual(p, q) {
			t.Errorf("%s carries another %s than the shop's (%v)", path, p.ID, err)
		}
	}
}

// What is wrong is named with its place, as a JSON pointer.
func TestBadFiles(t *testing.T) {
	good := demoFile(t, "jobs/echo-sounding-tower.job.json")
	for _, c := range []struct{ name, from, to, want string }{
		{"empty", good, "", "/: not JSON: it ends too early; write one JSON document"},
		{"cut", good, good[:500], "/: not JSON: it ends too early; write one JSON document"},
		{"a comma too many", `"version": 1,`, `"version": 1,,`, "/: not JSON: invalid character ',' looking for beginning of object key string at line 3, column 16; write one JSON document"},
		{"a list", good, "[]", "/: not an object; a deepbay/job file is one JSON object"},
		{"another format", `"format": "deepbay/job"`, `"format": "deepbay/part"`, `/format: "deepbay/part" is not the format expected here; expected "deepbay/job"`},
		{"no format", `"format": "deepbay/job",`, ``, `/format: nothing is not the format expected here; expected "deepbay/job"`},
		{"another version", `"version": 1,` + "\n" + `  "id": "echo`, `"version": 2,` + "\n" + `  "id": "echo`, "/version: version 2 is not known; this program reads version 1"},
		{"unknown field", `"title":`, `"colour": "red", "title":`, "/colour: this field is not known; check its spelling against the schema, or remove it"},
		{"unknown field deep down", `"name": "processor",`, `"name": "processor", "cores": 8,`, "/sheet/roots/0/cores: this field is not known; check its spelling against the schema, or remove it"},
		{"missing field", `"title": "Echo-sounding tower",`, ``, "/: missing: title; add it"},
		{"negative size", `"sizeBytes": 17179869184`, `"sizeBytes": -1`, "/parts/3/module/sizeBytes: minimum: got -1, want 1"},
		{"a word for a number", `"sizeBytes": 17179869184`, `"sizeBytes": "16 GB"`, "/parts/3/module/sizeBytes: got string, want integer"},
		{"a number too large", `"sizeBytes": 17179869184`, `"sizeBytes": 1e30`, "/parts/3/module/sizeBytes: maximum"},
		{"a field twice", `"title":`, `"title": "Other", "title":`, "/title: this field is there twice; leave one of them"},
		{"a field twice deep down", `"kind": "m2"`, `"kind": "m2", "kind": "m2"`, "/sheet/sockets/0/kind: this field is there twice"},
		{"unknown kind", `"kind": "m2"`, `"kind": "m3"`, "/sheet/sockets/0/kind: value must be one of 'm2', 'pcie', 'sata', 'u2', 'dimm', 'sodimm'"},
		{"a width that is none", `"lanes": 4,` + "\n" + `        "sataGen"`, `"lanes": 3,` + "\n" + `        "sataGen"`, "/sheet/sockets/1/lanes: value must be one of 1, 2, 4, 8, 16"},
		{"time of no day", `"arrived": "2026-11-25`, `"arrived": "2026-13-45`, "/arrived: '2026-13-45T08:40:00Z' is not valid date-time"},
		{"unknown socket", `"socket": "SATA6"`, `"socket": "SATA9"`, `/sheet/rules/0/then/1/socket: no socket is named "SATA9"`},
	} {
		text := strings.Replace(good, c.from, c.to, 1)
		if text == good {
			t.Fatalf("%s: nothing was replaced", c.name)
		}
		_, err := format.Job([]byte(text))
		var list problem.List
		if !errors.As(err, &list) || !strings.Contains(say.Plain.Err(err).Error(), c.want) {
			t.Errorf("%s: %v\nwant %s", c.name, err, c.want)
		}
	}
	if _, err := format.Value[job.Change]("Change", []byte(`{"do":"place","itme":"x"}`)); err == nil || !strings.Contains(say.Plain.Err(err).Error(), "/itme: this field is not known") {
		t.Errorf("a change with a wrong field: %v", err)
	}
	if _, err := format.Value[job.Change]("NoSuch", []byte(`{}`)); err == nil {
		t.Error("a definition that is none was used")
	}
}

// An observation is a file of its own.
func TestObservation(t *testing.T) {
	o, err := format.Observation([]byte(`{"format":"deepbay/observation","version":1,"readings":[{"line":"total","bytes":34359738368,"origin":"probe"}]}`))
	if err != nil || len(o.Readings) != 1 || o.Readings[0].Bytes.Binary() != "32 GiB" {
		t.Errorf("%+v, %v", o, err)
	}
}

// Whatever bytes come in, the answer is a document or a list of what is wrong.
func FuzzJob(f *testing.F) {
	f.Add([]byte(demoFile(f, "jobs/tide-gauge-mini-pc.job.json")))
	f.Add([]byte(`{"format":"deepbay/job","version":1}`))
	f.Add([]byte(`{"a":`))
	f.Fuzz(func(t *testing.T, b []byte) {
		j, err := format.Job(b)
		var list problem.List
		if err != nil && !errors.As(err, &list) {
			t.Fatalf("an error without a place: %v", err)
		}
		if err == nil {
			job.Look(j) // a job that was taken can be looked at
		}
	})
}

// FuzzOther gives any bytes to the readers of the other documents: each refuses them with their
// place, or takes what it then writes again and reads as the same.
func FuzzOther(f *testing.F) {
	for _, name := range []string{"sheets/plover-m2.sheet.json", "parts/ternlight-500.part.json"} {
		f.Add([]byte(demoFile(f, name)))
	}
	f.Add([]byte(`{"format":"deepbay/observation","version":1,"drives":[{"at":"M2","capacityBytes":500107862016}]}`))
	deed, err := format.WriteDeed(fact.Of(job.BroughtBack, 3), nil)
	if err != nil {
		f.Fatal(err)
	}
	f.Add(deed)
	f.Fuzz(func(t *testing.T, b []byte) {
		again(t, b, format.Sheet)
		again(t, b, format.Part)
		again(t, b, format.Observation)
		if _, err := format.ReadDeed(b); err == nil && !json.Valid(b) {
			t.Fatal("a deed that is no JSON is read")
		}
	})
}

func again[T any](t *testing.T, b []byte, read func([]byte) (T, error)) {
	t.Helper()
	v, err := read(b)
	var list problem.List
	if err != nil {
		if !errors.As(err, &list) {
			t.Fatalf("an error without a place: %v", err)
		}
		return
	}
	w, err := format.Write(v)
	if err != nil {
		t.Fatal(err)
	}
	if _, err := read(w); err != nil {
		t.Fatalf("what was taken is not taken again: %v\n%s", err, w)
	}
}

// marred changes some values of a document, wherever they are: to others of it, to what is
// at the edge of what there can be, or to nothing.
func marred(doc any, rng *rand.Rand) any {
	var leaves []any
	walk(doc, func(v any) any { leaves = append(leaves, v); return v })
	odd := []any{nil, true, false, 0.0, -1.0, 1.0, 2.5, 1e15, 9e18, "", " ", "M2_1", "item-1", "x/1/2/3", []any{}, map[string]any{}}
	left := map[int]bool{}
	for range 1 + rng.Intn(4) {
		left[rng.Intn(len(leaves))] = true
	}
	n := -1
	return walk(doc, func(v any) any {
		if n++; !left[n] {
			return v
		}
		if rng.Intn(2) == 0 {
			return leaves[rng.Intn(len(leaves))]
		}
		return odd[rng.Intn(len(odd))]
	})
}

// walk rebuilds a document with every value that has none inside it, in one order.
func walk(doc any, leaf func(any) any) any {
	switch d := doc.(type) {
	case map[string]any:
		out := map[string]any{}
		for _, k := range slices.Sorted(maps.Keys(d)) {
			if v := walk(d[k], leaf); v != nil { // nothing is left out
				out[k] = v
			}
		}
		return out
	case []any:
		out := make([]any, len(d))
		for i := range d {
			out[i] = walk(d[i], leaf)
		}
		return out
	}
	return leaf(doc)
}

// FuzzMarredJob changes values of the demo jobs: what is refused is refused with its place;
// what is taken can be judged, ordered, planned, worded in full, and is written as it is read.
func FuzzMarredJob(f *testing.F) {
	var docs []any
	err := fs.WalkDir(demo.Files, "jobs", func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() {
			return err
		}
		var doc any
		if err := json.Unmarshal([]byte(demoFile(f, path)), &doc); err != nil {
			return err
		}
		docs = append(docs, doc)
		return nil
	})
	if err != nil {
		f.Fatal(err)
	}
	for seed := range int64(200) {
		f.Add(seed)
	}
	f.Fuzz(func(t *testing.T, seed int64) {
		rng := rand.New(rand.NewSource(seed))
		b, err := json.Marshal(marred(docs[rng.Intn(len(docs))], rng))
		if err != nil {
			t.Fatal(err)
		}
		j, err := format.Job(b)
		var list problem.List
		if err != nil {
			if !errors.As(err, &list) {
				t.Fatalf("an error without a place: %v", err)
			}
			return
		}
		v := job.Look(j)
		if _, err := json.Marshal(say.Look(say.Plain, &v)); err != nil {
			t.Fatal(err)
		}
		in, err := j.PlanInput(job.PlanQuestion{})
		if err != nil {
			t.Fatal(err)
		}
		in.Budget = 500
		advice, err := plan.Ask(t.Context(), in)
		if err != nil || advice.Proof.Code == plan.Refuted {
			t.Fatalf("%v, %v", err, advice.Proof)
		}
		if _, err := json.Marshal(say.About(say.Plain, &j).Advice(&advice)); err != nil {
			t.Fatal(err)
		}
		written, err := format.Write(j)
		if err != nil {
			t.Fatal(err)
		}
		back, err := format.Job(written)
		if err != nil {
			t.Fatalf("what was taken is not taken back in: %v", err)
		}
		if again, err := format.Write(back); err != nil || string(again) != string(written) {
			t.Fatalf("it is written otherwise than it is read: %v", err)
		}
	})
}

// TestWhatWordsSayIsReadBack types parts of random words: what is taken is written to a
// file that is read as the same part.
func TestWhatWordsSayIsReadBack(t *testing.T) {
	words := strings.Fields("16GB 8GB 512MB 1TB 8TB 500 DIMM SODIMM DDR3 DDR4-3200 DDR5-5600 PC4-21300 PC3L-12800S 2Rx8 1R ECC reg 1.35V CL16 base profile-6000 nvme sata u.2 2.5 3.5 7200 2280 22110 2280-D2 3042-S1 M B+M gen3 gen4 x2 x4 1s 2s heatsink bare 7mm")
	rng, taken := rand.New(rand.NewSource(1)), 0
	for range 20_000 {
		text := ""
		for range 1 + rng.Intn(5) {
			text += words[rng.Intn(len(words))] + " "
		}
		got, err := shorthand.Read(text)
		if err != nil || len(got.Part.Validate()) > 0 || asksForm(got) {
			continue
		}
		taken++
		b, err := format.Write(got.Part)
		if err != nil {
			t.Fatalf("%q: %v", text, err)
		}
		back, err := format.Part(b)
		if err != nil || !reflect.DeepEqual(back, got.Part) {
			t.Fatalf("%q is written as %s and read as %+v, %v", text, b, back, err)
		}
	}
	if taken < 1000 {
		t.Errorf("only %d parts were taken", taken)
	}
}

// asksForm reports words that leave the form open, which no part can.
func asksForm(s shorthand.Reading) bool {
	return slices.ContainsFunc(s.Asks, func(a shorthand.Ask) bool { return a.About == shorthand.WhichForm })
}

// TestProblemsStandInOneOrder reads one bad file again and again.
func TestProblemsStandInOneOrder(t *testing.T) {
	bad := []byte(`{"format": "deepbay/job", "version": 1, "found": {}, "planned": {}, "wish": {"systemBytes": -1, "keep": 3}, "items": 4, "more": true}`)
	first := ""
	for range 50 {
		_, err := format.Job(bad)
		if err == nil {
			t.Fatal("a bad file is read")
		}
		if first == "" {
			first = err.Error()
		}
		if err.Error() != first {
			t.Fatalf("first\n%s\nthen\n%s", first, err)
		}
	}
}
