package server_test

import (
	"strings"
	"testing"

	"deepbay/internal/server"
)

// TestPractice writes the shop's practice: it is kept over its revision, new jobs follow it, and
// what is no answer is refused with its place.
func TestPractice(t *testing.T) {
	h := shop(t)
	first := answered[server.PracticeView](ask(t, h, "GET", "/api/practice", ""))
	if first.Revision != 0 || len(first.Rows) != 13 || first.Rows[0].Chosen != "strap" {
		t.Fatalf("at first it is %+v", first)
	}
	for _, r := range first.Rows {
		for _, s := range r.Schools {
			if s.Says.IsZero() || s.Why.IsZero() {
				t.Errorf("%s: %s has no reason", r.Matter, s.School)
			}
		}
	}
	for body, want := range map[string]string{
		`{"revision":0,"practice":[{"question":"earth","school":"cups"}]}`: "/practice/0",
		`{"revision":0,"practice":[{"question":"tea","school":"cups"}]}`:   "/practice/0/question",
		`{"revision":4,"practice":[]}`:                                     "changed meanwhile",
	} {
		if a := ask(t, h, "PUT", "/api/practice", body); a.Code < 400 || !strings.Contains(a.Body.String(), want) {
			t.Errorf("%s: %d %s", body, a.Code, a.Body)
		}
	}
	now := answered[server.PracticeView](ask(t, h, "PUT", "/api/practice", `{"revision":0,"practice":[{"question":"first-start","school":"closed"}],"by":"Ines"}`))
	if now.Revision != 1 || now.Rows[9].Chosen != "closed" {
		t.Errorf("it is %+v", now)
	}
	a := ask(t, h, "POST", "/api/jobs", `{"title":"New logger","sheet":"harrier-t4","wish":{}}`)
	if v := a.view(); len(v.View.Job.Practice) != 1 {
		t.Errorf("a new job has %+v: %s", v.View.Job.Practice, a.Body)
	}
	if b := answered[server.BenchView](ask(t, h, "GET", "/api/jobs/rain-gauge-logger/bench", "")); b.Practice == nil || len(*b.Practice) != 1 {
		t.Errorf("an open job is not told: %+v", b.Practice)
	}
}

// TestBenchView tells what of a pick list lies on the shelf, and what is short; times of finished
// jobs on the model replace the guesses.
func TestBenchView(t *testing.T) {
	h := shop(t)
	const at = "/api/jobs/rain-gauge-logger"
	b := answered[server.BenchView](ask(t, h, "GET", at+"/bench", ""))
	short := ""
	for _, l := range b.Pick {
		if l.Part && l.Short != (l.Have+l.Shelf < l.Count) {
			t.Errorf("%s: %d and %d of %d, short %v", l.Says, l.Have, l.Shelf, l.Count, l.Short)
		}
		if l.Part {
			short += l.Says.String() + "; "
		}
	}
	if !strings.Contains(short, "M3") || b.Learnt != 0 || b.Minutes < 10 || b.Left != b.Minutes {
		t.Errorf("it says %+v", b)
	}
	v := ask(t, h, "GET", at, "").view()
	serials := "" // a step that erases asks for the end of its drive's
	for _, it := range v.View.Job.Items {
		serials += it.Serial + " "
	}
	for _, s := range v.View.Order {
		body := `{"do":"tick","step":"` + string(s.ID) + `","seconds":90,"text":"` + serials + `"}`
		if s.Test != "" {
			body = `{"do":"test","step":"` + string(s.ID) + `","result":{"step":"x","state":"passed","passes":1}}`
		}
		v = ask(t, h, "POST", at+"/changes", change(v.Revision, body)).view()
	}
	v = ask(t, h, "POST", at+"/changes", change(v.Revision, `{"do":"close"}`)).view()
	if v.View.Job.Closed == nil {
		t.Fatal("it does not close")
	}
	file := strings.ReplaceAll(ask(t, h, "GET", at+"/file", "").Body.String(), `"rain-gauge-logger"`, `"second-logger"`)
	file = file[:strings.LastIndex(file[:strings.Index(file, `"closed"`)], ",")] + "}"
	if a := ask(t, h, "POST", "/api/files", file); a.Code != 201 {
		t.Fatalf("%d %s", a.Code, a.Body)
	}
	b = answered[server.BenchView](ask(t, h, "GET", "/api/jobs/second-logger/bench", ""))
	if b.Learnt == 0 || !strings.Contains(b.Says.String(), "timed by finished jobs") {
		t.Errorf("nothing is learnt: %s", b.Says)
	}
	for _, s := range b.Steps {
		if s.Step == "open/finned-lid" && s.Says.String() != "1.5 min, the middle of 1 job on this model" {
			t.Errorf("the lid takes %s", s.Says)
		}
	}
}
