package server_test

import (
	"fmt"
	"strings"
	"testing"
)

// TestUndoBySteps: undo goes back change by change to the beginning and never to and fro; redo goes
// forward again as far as it was, and a change made meanwhile ends that.
func TestUndoBySteps(t *testing.T) {
	h := shop(t)
	revision := 1
	send := func(route, body string) (string, int) {
		t.Helper()
		a := ask(t, h, "POST", tower+route, fmt.Sprintf(`{"revision":%d,"by":"Oda Finch",%s}`, revision, body))
		if a.Code != 200 {
			return a.problem().Detail, a.Code
		}
		v := a.view()
		revision = v.Revision
		return v.Journal[len(v.Journal)-1].Says.String(), a.Code
	}
	stands := func() string {
		t.Helper()
		return ask(t, h, "GET", tower, "").view().View.Job.Stands
	}
	at := func(place string) { // a change that is easily told
		t.Helper()
		if _, code := send("/changes", fmt.Sprintf(`"change":{"do":"schedule","value":%q}`, place)); code != 200 {
			t.Fatalf("%s: %d", place, code)
		}
	}
	begin := stands()
	for _, place := range []string{"bench 1", "bench 2", "bench 3"} {
		at(place)
	}
	for i, step := range []struct{ route, body, stands, says string }{
		{"/undo", `"redo":false`, "bench 2", "undid: "},
		{"/undo", `"redo":false`, "bench 1", "undid: "},
		{"/undo", `"redo":true`, "bench 2", "redid: "},
		{"/undo", `"redo":true`, "bench 3", "redid: "},
		{"/undo", `"redo":false`, "bench 2", "undid: "},
		{"/undo", `"redo":false`, "bench 1", "undid: "},
		{"/undo", `"redo":false`, begin, "undid: "},
		{"/undo", `"redo":true`, "bench 1", "redid: "},
		{"/changes", `"change":{"do":"schedule","value":"the rack"}`, "the rack", ""},
		{"/undo", `"redo":false`, "bench 1", "undid: "},
		{"/undo", `"redo":false`, begin, "undid: "},
		{"/undo", `"redo":true`, "bench 1", "redid: "},
		{"/undo", `"redo":true`, "the rack", "redid: "},
	} {
		says, code := send(step.route, step.body)
		if code != 200 || stands() != step.stands || !strings.HasPrefix(says, step.says) || strings.Contains(says, "undid: undid") {
			t.Fatalf("step %d: %d, %q, and it stands at %q, want %q", i+1, code, says, stands(), step.stands)
		}
	}
	if says, code := send("/undo", `"redo":true`); code != 422 {
		t.Errorf("redo of nothing: %d %s", code, says)
	}
	for range 2 {
		send("/undo", `"redo":false`)
	}
	if says, code := send("/undo", `"redo":false`); code != 422 {
		t.Errorf("there is nothing before the beginning, and it is undone: %d %s", code, says)
	}
}

// TestStepsAtOnce: two people tick different steps at the same revision, and both are kept; the same
// step said differently is a conflict, and the same said twice is not.
func TestStepsAtOnce(t *testing.T) {
	h := shop(t)
	const mini = "/api/jobs/buoy-tracker-desktop"
	for _, c := range []struct {
		change string
		code   int
	}{
		{`{"do":"tick","step":"prepare/backup"}`, 200},
		{`{"do":"tick","step":"prepare/parts"}`, 200},
		{`{"do":"tick","step":"prepare/parts"}`, 200},
		{`{"do":"leave out","step":"power-down/drain","text":"no lights","sure":true}`, 200},
		{`{"do":"tick","step":"power-down/drain"}`, 409},
		{`{"do":"untick","step":"prepare/parts"}`, 409},
		{`{"do":"schedule","value":"bench 2"}`, 409},
	} {
		a := ask(t, h, "POST", mini+"/changes", `{"revision":1,"by":"Wim Tarn","change":`+c.change+`}`)
		if a.Code != c.code {
			t.Errorf("%s, made at the first revision: %d, want %d: %.200s", c.change, a.Code, c.code, a.Body)
		}
	}
	done := ask(t, h, "GET", mini, "").view().View.Job.Done
	if len(done) != 3 {
		t.Errorf("%+v", done)
	}
}
