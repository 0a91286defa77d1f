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
			if a.Code == http.StatusNotFound {
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
	if a := ask(t, h, "GET", "/api/searches/s0", ""); a.Code != http.StatusNotFound {
		t.Errorf("a question that has ended: %d %s", a.Code, a.Body)
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
