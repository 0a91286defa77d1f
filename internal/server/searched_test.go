package server_test

import (
	"context"
	"fmt"
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"testing/fstest"
	"time"

	"deepbay/internal/server"
	"deepbay/internal/store"
)

// A question that takes longer than it may is given up before its answer would be cut off,
// and says what to do; what is small is answered meanwhile.
func TestHeavyQuestionsEnd(t *testing.T) {
	h, err := server.New(server.Options{Data: filled(t), Now: func() time.Time { return now }, Log: slog.New(slog.NewTextHandler(io.Discard, nil)),
		Files: fstest.MapFS{"index.html": {Data: []byte(page)}}, Patience: time.Nanosecond})
	if err != nil {
		t.Fatal(err)
	}
	for path, body := range map[string]string{"/plan": `{}`, "/why-not": `{"item":"item-4","socket":"M2_1","question":{}}`, "/shop": `{"memoryBytes":34359738368}`} {
		if a := ask(t, h, "POST", tower+path, body); a.Code != http.StatusServiceUnavailable || a.Header().Get("Retry-After") != "" || !strings.Contains(a.problem().Detail, "pin some of the parts") {
			t.Errorf("%s: %d %s", path, a.Code, a.Body)
		}
	}
	if a := ask(t, h, "GET", tower, ""); a.Code != http.StatusOK {
		t.Errorf("what is small is %d", a.Code)
	}
}

// How far a question is is told while it is searched, by the name that its asker gave it;
// others wait for their turn and say so, and one that nobody waits for any more ends at once.
func TestProgress(t *testing.T) {
	h := shop(t)
	ctx, stop := context.WithCancel(t.Context())
	var all sync.WaitGroup
	for n := range 4 {
		all.Go(func() {
			r := httptest.NewRequestWithContext(ctx, "POST", fmt.Sprintf("/api/jobs/bathymetry-render/plan?search=s%d", n), strings.NewReader(`{"useShelf":true}`))
			r.Host = "127.0.0.1:8480"
			h.ServeHTTP(httptest.NewRecorder(), r)
		})
	}
	var searched, waits bool
	for range 2000 {
		for n := range 4 {
			a := ask(t, h, "GET", fmt.Sprintf("/api/searches/s%d", n), "")
			if a.Code == http.StatusNoContent {
				continue
			}
			p := answered[server.Progress](a)
			searched = searched || p.Steps > 0 && strings.Contains(p.Says.String(), "searching: ")
			waits = waits || p.Steps == 0 && strings.Contains(p.Says.String(), "waits for its turn after ")
		}
		if searched && waits {
			break
		}
		time.Sleep(time.Millisecond)
	}
	if !searched || !waits {
		t.Errorf("that it is searched was told: %v; that it waits: %v", searched, waits)
	}
	stop()
	all.Wait()
	if a := ask(t, h, "GET", "/api/searches/s0", ""); a.Code != http.StatusNoContent {
		t.Errorf("a question that has ended: %d %s", a.Code, a.Body)
	}
}

// As many changes as may wait do, each is carried out in its turn, and one that sends slowly
// takes no turn; one more is told at once to come again; reads wait for none of them.
func TestChangesWaitTheirTurn(t *testing.T) {
	gate := make(chan struct{})
	h := serving(t, slow{filled(t), gate})
	var all sync.WaitGroup
	var done, stale atomic.Int32
	send := func(body io.Reader) *httptest.ResponseRecorder {
		r := httptest.NewRequestWithContext(t.Context(), "POST", tower+"/changes", body)
		r.Host = "127.0.0.1:8480"
		a := httptest.NewRecorder()
		h.ServeHTTP(a, r)
		return a
	}
	wish := change(1, `{"do":"wish","wish":{"text":"quiet"}}`)
	half, rest := io.Pipe() // a body that does not end
	all.Go(func() { send(half) })
	for range store.MostWaiting - 1 {
		all.Go(func() {
			switch a := send(strings.NewReader(wish)); a.Code {
			case http.StatusOK:
				done.Add(1)
			case http.StatusConflict:
				stale.Add(1)
			default:
				t.Errorf("%d %.300s", a.Code, a.Body)
			}
		})
	}
	for waiting := 0; waiting < store.MostWaiting; {
		waiting = answered[server.Health](ask(t, h, "GET", "/api/health", "")).Waiting
	}
	if a := send(strings.NewReader(wish)); a.Code != http.StatusServiceUnavailable || a.Header().Get("Retry-After") == "" || !strings.Contains(a.Body.String(), "nothing was changed") {
		t.Errorf("one more: %d %s", a.Code, a.Body)
	}
	if a := ask(t, h, "GET", tower, ""); a.Code != http.StatusOK {
		t.Errorf("a read: %d", a.Code)
	}
	close(gate)
	for done.Load()+stale.Load() < store.MostWaiting-1 { // though one still sends
		time.Sleep(time.Millisecond)
	}
	rest.Close()
	all.Wait()
	if done.Load() != 1 {
		t.Errorf("%d changes of one revision were carried out", done.Load())
	}
}

// Of many questions at once each is answered, or told to come again.
func TestManyQuestions(t *testing.T) {
	h := shop(t)
	var done, busy atomic.Int32
	var all sync.WaitGroup
	for range 60 {
		all.Go(func() {
			a := ask(t, h, "POST", "/api/jobs/chart-table-workstation/plan", `{"useShelf":true}`)
			switch {
			case a.Code == http.StatusOK:
				done.Add(1)
			case a.Code == http.StatusServiceUnavailable && a.Header().Get("Retry-After") != "":
				busy.Add(1)
			default:
				t.Errorf("%d %.300s", a.Code, a.Body)
			}
		})
	}
	all.Wait()
	if done.Load() < 16 || done.Load()+busy.Load() != 60 {
		t.Errorf("%d answered, %d told to come again", done.Load(), busy.Load())
	}
}
