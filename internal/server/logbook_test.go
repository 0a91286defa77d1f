package server_test

import (
	"bytes"
	"encoding/csv"
	"encoding/json"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"path/filepath"
	"slices"
	"strings"
	"testing"
	"testing/fstest"
	"time"

	"deepbay/internal/core/say"
	"deepbay/internal/server"
	"deepbay/internal/store"
)

// TestLogbook: a change is found at once by its words, its hand, its day and its job; machines and
// parts that carry the words are told beside; the same goes out as CSV and as JSON.
func TestLogbook(t *testing.T) {
	h := shop(t)
	if a := ask(t, h, "POST", tower+"/changes", change(1, `{"do":"differs","differs":{"id":1,"text":"the gasket of the cover is glued"}}`)); a.Code != http.StatusOK {
		t.Fatal(a.Body)
	}
	find := func(q string) server.LogbookPage {
		t.Helper()
		a := ask(t, h, "GET", "/api/logbook?"+q, "")
		if a.Code != http.StatusOK {
			t.Fatalf("%s: %d %s", q, a.Code, a.Body)
		}
		return answered[server.LogbookPage](a)
	}
	today := now.Format("2006-01-02")
	for q, want := range map[string]int{"q=gasket+glu": 1, "q=gasket+echo": 1, "q=gasket&who=oda+finch": 1, "q=gasket&who=nobody": 0, "q=gasket&from=" + today + "&to=" + today: 1, "q=gasket&to=2026-01-01": 0, "q=gasket&kind=sheet": 0, "q=gasket&model=harrier-t4": 1, "q=gasket&kind=job&thing=echo-sounding-tower": 1} {
		if p := find(q); len(p.Lines) != want {
			t.Errorf("%s: %d lines, want %d", q, len(p.Lines), want)
		}
	}
	if l := find("q=gasket").Lines[0]; l.Thing != "echo-sounding-tower" || l.Called != "Echo-sounding tower" || l.Revision != 2 || !strings.Contains(l.Says.String(), "the gasket of the cover is glued") {
		t.Errorf("%+v", l)
	}
	p := find("q=skb-40131")
	if len(p.Parts) != 1 || p.Parts[0].Serial != "SKB-40131" {
		t.Errorf("%+v", p.Parts)
	}
	if p := find("q=hs0417"); len(p.Jobs) != 2 {
		t.Errorf("%+v", p.Jobs)
	}
	seen, pages := 0, 0
	for p := find(""); ; p = find("after=" + p.Next) {
		seen, pages = seen+len(p.Lines), pages+1
		if p.Left > 0 {
			t.Errorf("%d lines are left", p.Left)
		}
		if p.Next == "" {
			break
		}
	}
	rows, err := csv.NewReader(ask(t, h, "GET", "/api/logbook/file?as=csv", "").Body).ReadAll()
	if err != nil || len(rows) != seen+1 || pages < 3 {
		t.Errorf("%d rows of %d lines on %d pages, %v", len(rows), seen, pages, err)
	}
	var all []server.LogbookLine
	if err := json.Unmarshal(ask(t, h, "GET", "/api/logbook/file?as=json", "").Body.Bytes(), &all); err != nil || len(all) != seen {
		t.Errorf("%d lines of %d, %v", len(all), seen, err)
	}
}

// TestLives asks for lives and figures, and what is not there is said.
func TestLives(t *testing.T) {
	h := shop(t)
	machine := answered[server.LifeView](ask(t, h, "GET", "/api/life?job=echo-sounding-tower", ""))
	if len(machine.Jobs) != 2 || len(machine.Life.Stays) != 4 || machine.Tag != "HS-0417" {
		t.Errorf("%+v", machine)
	}
	part := answered[server.LifeView](ask(t, h, "GET", "/api/life?serial=skb40117", ""))
	if len(part.Jobs) != 2 || len(part.Life.Stays) != 2 || part.Title != "Skerry 480" {
		t.Errorf("%+v", part)
	}
	onShelf := answered[server.LifeView](ask(t, h, "GET", "/api/life?serial=SKB-40131", ""))
	if len(onShelf.Jobs) != 0 || len(onShelf.Shelf) == 0 || !strings.Contains(onShelf.Says.String(), "on the shelf") {
		t.Errorf("%+v", onShelf)
	}
	if a := ask(t, h, "GET", "/api/life?serial=nobody", ""); a.Code != http.StatusNotFound {
		t.Errorf("%d", a.Code)
	}
	figures := answered[say.Figures](ask(t, h, "GET", "/api/figures?months=24", ""))
	for _, table := range figures.Tables {
		for _, r := range table.Rows {
			if len(r.Months) != 24 || r.N == 0 || r.Name.IsZero() || strings.Contains(r.Name.String(), "{") {
				t.Errorf("%s: %+v", table.Of, r)
			}
		}
	}
	if len(figures.Tables) < 5 {
		t.Errorf("%+v", figures.Tables)
	}
	for _, path := range []string{"/api/life/file?serial=SKB-40117&as=csv", "/api/figures/file?as=csv"} {
		if rows, err := csv.NewReader(ask(t, h, "GET", path, "").Body).ReadAll(); err != nil || len(rows) < 2 {
			t.Errorf("%s: %v, %v", path, rows, err)
		}
	}
}

// TestProofsAreKept: what a job showed beyond its model's sheet is told to the next job on that
// model until somebody keeps it; then the shop's sheet says so, with the job as evidence.
func TestProofsAreKept(t *testing.T) {
	h := shop(t)
	next := "/api/jobs/quay-camera-mini-pc/sheet"
	n := answered[server.NewerSheet](ask(t, h, "GET", next, ""))
	if len(n.Proofs) != 2 || n.Proofs[0].Job != "current-model-mini-pc" || len(n.Differs) != 0 {
		t.Fatalf("%+v", n)
	}
	for _, p := range n.Proofs {
		if a := ask(t, h, "POST", "/api/jobs/"+string(p.Job)+"/proven", `{"of":"`+string(p.Of)+`","by":"Oda Finch"}`); a.Code != http.StatusOK {
			t.Fatal(a.Body)
		}
	}
	n = answered[server.NewerSheet](ask(t, h, "GET", next, ""))
	if len(n.Proofs) != 0 || len(n.Differs) == 0 {
		t.Errorf("%+v", n)
	}
}

// TestWholeShop takes a shop along and puts it into an empty one, which is the same shop then; into
// one that has something, or from a file that is none, nothing comes.
func TestWholeShop(t *testing.T) {
	h := shop(t)
	file := ask(t, h, "GET", "/api/shop/file", "")
	if file.Code != http.StatusOK || !strings.Contains(file.Header().Get("Content-Disposition"), ".zip") {
		t.Fatalf("%d %v", file.Code, file.Header())
	}
	whole := file.Body.String()
	if a := ask(t, h, "POST", "/api/shop", whole); a.Code != http.StatusConflict {
		t.Errorf("into a shop that has something: %d %s", a.Code, a.Body)
	}
	s, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "new.db"))
	if err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	empty := serving(t, s)
	for what, b := range map[string]string{"a letter": "Dear harbour master", "half": whole[:len(whole)/2], "nothing": ""} {
		a := ask(t, empty, "POST", "/api/shop", b)
		if p := a.problem(); a.Code != http.StatusUnprocessableEntity || len(p.Errors) != 1 || strings.Contains(p.Detail, "/tmp") {
			t.Errorf("%s: %d %+v", what, a.Code, p)
		}
	}
	if a := ask(t, empty, "POST", "/api/shop", whole); a.Code != http.StatusOK {
		t.Fatalf("%d %s", a.Code, a.Body)
	}
	if again := ask(t, empty, "GET", "/api/shop/file", ""); again.Body.String() != whole {
		t.Error("the file of the new shop is another")
	}
	for _, path := range []string{"/api/logbook", "/api/shelf", "/api/life?job=echo-sounding-tower", "/api/figures?months=24", "/api/jobs/echo-sounding-tower"} {
		if a, b := ask(t, h, "GET", path, "").Body.String(), ask(t, empty, "GET", path, "").Body.String(); a != b {
			t.Errorf("%s tells another thing there", path)
		}
	}
	list := answered[server.JobList](ask(t, empty, "GET", "/api/jobs", ""))
	if !slices.ContainsFunc(list.Jobs, func(c server.JobCard) bool { return c.ID == "echo-sounding-tower" }) {
		t.Error("the bench lacks it")
	}
}

// TestShopHasItsTime takes a shop along, and one in, over a real connection: a large one may take
// longer than other requests do.
func TestShopHasItsTime(t *testing.T) {
	var log bytes.Buffer
	h, err := server.New(server.Options{Data: filled(t), Now: func() time.Time { return now }, Log: slog.New(slog.NewTextHandler(&log, nil)), Files: fstest.MapFS{"index.html": {Data: []byte(page)}}})
	if err != nil {
		t.Fatal(err)
	}
	at := httptest.NewServer(h)
	defer at.Close()
	got, err := http.Get(at.URL + "/api/shop/file") //nolint:noctx // it is next door
	if err != nil || got.StatusCode != http.StatusOK {
		t.Fatal(got, err)
	}
	defer got.Body.Close()
	sent, err := http.Post(at.URL+"/api/shop", "application/zip", got.Body) //nolint:noctx // likewise
	if err != nil || sent.StatusCode != http.StatusConflict {
		t.Fatal(sent, err)
	}
	sent.Body.Close()
	if strings.Contains(log.String(), "longer than its connection lasts") {
		t.Error(log.String())
	}
}
