package server_test

import (
	"io"
	"log/slog"
	"net/http"
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
