package server_test

import (
	"archive/zip"
	"bytes"
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"image"
	"image/jpeg"
	"image/png"
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"net/url"
	"path/filepath"
	"slices"
	"strings"
	"sync"
	"testing"
	"testing/fstest"
	"time"

	"deepbay/demo"
	demoshop "deepbay/demo/shop"
	"deepbay/internal/core/fact"
	"deepbay/internal/core/job"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/say"
	"deepbay/internal/core/shelf"
	"deepbay/internal/server"
	"deepbay/internal/store"
)

var now = time.Date(2026, 11, 25, 10, 0, 0, 0, time.UTC)

const page = `<!doctype html><script>start()</script><p>Deep Bay</p>`

// shop is the handler over a real file with the demo shop in it.
func shop(t testing.TB) http.Handler {
	t.Helper()
	return serving(t, filled(t))
}

// filled is a fresh demo shop in a real file.
func filled(t testing.TB) *store.Store {
	t.Helper()
	return filledAt(t, filepath.Join(t.TempDir(), "shop.db"))
}

func filledAt(t testing.TB, path string) *store.Store {
	t.Helper()
	s, err := store.Open(t.Context(), path)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { s.Close() })
	if err := demoshop.Fill(t.Context(), s); err != nil {
		t.Fatal(err)
	}
	return s
}

// appFiles is a built front end.
var appFiles = fstest.MapFS{
	"index.html":                  {Data: []byte(page)},
	"_app/immutable/app.js":       {Data: []byte("let a = 1")},
	"_app/immutable/app.js.br":    {Data: []byte("brotli")},
	"_app/immutable/font-x.woff2": {Data: []byte("font")},
	"theme.js":                    {Data: []byte("/* theme */")},
}

// serving is the whole application over some data.
func serving(t testing.TB, data server.Data) http.Handler {
	t.Helper()
	h, err := server.New(server.Options{Data: data, Version: "test", Program: "this one", Now: func() time.Time { return now }, Patience: time.Hour,
		Log:   slog.New(slog.NewTextHandler(io.Discard, nil)),
		Files: appFiles})
	if err != nil {
		t.Fatal(err)
	}
	return h
}

type answer struct {
	*httptest.ResponseRecorder
	t testing.TB
}

// ask sends one request as a page on this machine would; headers are "Name: value".
func ask(t testing.TB, h http.Handler, method, path, body string, headers ...string) answer {
	t.Helper()
	r := httptest.NewRequestWithContext(t.Context(), method, path, strings.NewReader(body))
	r.Host = "127.0.0.1:8480"
	for _, x := range headers {
		name, value, _ := strings.Cut(x, ": ")
		if name == "Host" {
			r.Host = value
		}
		r.Header.Set(name, value)
	}
	w := httptest.NewRecorder()
	h.ServeHTTP(w, r)
	return answer{w, t}
}

// answered reads a good answer.
func answered[T any](a answer) (v T) {
	a.t.Helper()
	if err := json.Unmarshal(a.Body.Bytes(), &v); err != nil || a.Code >= 300 {
		a.t.Fatalf("%d %v: %.300s", a.Code, err, a.Body)
	}
	return v
}

// bench is every page of the list of jobs.
func bench(t testing.TB, h http.Handler, query string) (all []server.JobCard) {
	t.Helper()
	for after := ""; ; {
		page := answered[server.JobList](ask(t, h, "GET", "/api/jobs?q="+url.QueryEscape(query)+"&after="+url.QueryEscape(after), ""))
		all = append(all, page.Jobs...)
		if after = page.Next; after == "" {
			return all
		}
	}
}

// onShelf is every page of the shelf, by part.
func onShelf(t testing.TB, h http.Handler) map[string]server.ShelfRow {
	t.Helper()
	out := map[string]server.ShelfRow{}
	for after := part.ID(""); ; {
		page := answered[server.ShelfList](ask(t, h, "GET", "/api/shelf?after="+url.QueryEscape(string(after)), ""))
		for _, r := range page.Parts {
			out[string(r.Stock.Part.ID)] = r
		}
		if after = page.Next; after == "" {
			return out
		}
	}
}

func (a answer) problem() server.ProblemDoc {
	a.t.Helper()
	var p server.ProblemDoc
	if err := json.Unmarshal(a.Body.Bytes(), &p); err != nil {
		a.t.Fatalf("not a problem document: %v: %s", err, a.Body)
	}
	return p
}

func (a answer) view() server.JobView {
	a.t.Helper()
	var v server.JobView
	if err := json.Unmarshal(a.Body.Bytes(), &v); err != nil || a.Code >= 300 {
		a.t.Fatalf("%d: %v: %.300s", a.Code, err, a.Body)
	}
	return v
}

const tower = "/api/jobs/echo-sounding-tower"

func change(revision int, change string) string {
	return fmt.Sprintf(`{"revision":%d,"by":"Oda Finch","change":%s}`, revision, change)
}

// What is asked wrongly gets a problem document that names the place, and nothing changes.
func TestProblems(t *testing.T) {
	h := shop(t)
	for _, c := range []struct {
		name, method, path, body string
		status                   int
		want                     string
	}{
		{"no such job", "GET", "/api/jobs/nobody", "", 404, `job "nobody": not found`},
		{"no such item", "GET", tower + "/offers/item-99", "", 404, `item "item-99": not found`},
		{"no such path", "GET", "/api/nothing", "", 404, "/api/nothing is no part of the API"},
		{"wrong method", "DELETE", tower, "", 405, "DELETE does nothing here"},
		{"not JSON", "POST", tower + "/changes", "{", 422, "not JSON"},
		{"unknown field", "POST", tower + "/changes", change(1, `{"do":"place","itme":"item-4"}`), 422, "/change/itme: this field is not known"},
		{"unknown change", "POST", tower + "/changes", change(1, `{"do":"dance"}`), 422, "/change/do: value must be one of"},
		{"unknown socket", "POST", tower + "/changes", change(1, `{"do":"place","item":"item-4","socket":"M2_9"}`), 422, `/change/socket: no socket is named "M2_9"; the sheet has M2_1`},
		{"negative size", "POST", tower + "/changes", change(1, `{"do":"wish","wish":{"memoryBytes":-1}}`), 422, "/change/wish/memoryBytes: minimum: got -1, want 1"},
		{"no revision", "POST", tower + "/changes", `{"change":{"do":"reopen"}}`, 422, "missing: revision"},
		{"large change", "POST", tower + "/changes", strings.Repeat(" ", 300<<10), 413, "larger than the 256 KiB taken here; nothing was changed"},
		{"a 5 MB list", "POST", "/api/shelf/csv", strings.Repeat(" ", 5<<20), 413, "larger than the 4096 KiB taken here"},
		{"a 50 MB file", "POST", "/api/files", strings.Repeat(" ", 50<<20), 413, "larger than the 4096 KiB taken here"},
		{"file in use", "POST", "/api/files", string(file(t, "jobs/echo-sounding-tower.job.json")), 409, "is on the bench already"},
		{"file that is none", "POST", "/api/files", `{"format":"deepbay/part","version":1}`, 422, "missing: id, name"},
		{"file of another kind", "POST", "/api/files", `{"format":"shopping/list"}`, 422, `/format: "shopping/list" is not the format expected here`},
		{"new job of no sheet", "POST", "/api/jobs", `{"title":"X","sheet":"nothing","wish":{}}`, 422, `/sheet: no sheet is named "nothing"`},
		{"new job without a name", "POST", "/api/jobs", `{"title":"","sheet":"plover-m2","wish":{}}`, 422, "/title: minLength: got 0, want 1"},
		{"undo of nothing", "POST", tower + "/undo", `{"revision":1}`, 422, "all of it is undone: this is how the job began"},
	} {
		a := ask(t, h, c.method, c.path, c.body)
		p := a.problem()
		if a.Code != c.status || p.Status != c.status || !strings.Contains(p.Detail, c.want) ||
			a.Header().Get("Content-Type") != "application/problem+json" || !strings.HasPrefix(p.Type, "urn:deepbay:problem:") {
			t.Errorf("%s: %d %s %q, want %d %q", c.name, a.Code, a.Header().Get("Content-Type"), p.Detail, c.status, c.want)
		}
	}
	if v := ask(t, h, "GET", tower, "").view(); v.Revision != 1 || len(v.Journal) != 1 {
		t.Errorf("something was changed: revision %d, %d entries", v.Revision, len(v.Journal))
	}
}

// The life of a change: applied, journalled, repeated, stale, undone.
func TestChanges(t *testing.T) {
	h := shop(t)
	place := `{"revision":1,"key":"k1","by":"Oda Finch","change":{"do":"place","item":"item-4","socket":"M2_2"}}`
	v := ask(t, h, "POST", tower+"/changes", place).view()
	last := v.Journal[len(v.Journal)-1]
	if v.Revision != 2 || last.Says.String() != "put Ternlight 500 into M2_2" || last.By != "Oda Finch" || !last.At.Equal(now) {
		t.Fatalf("revision %d, %+v", v.Revision, last)
	}
	if s := v.View.Planned.Socket(rig.On("M2_2")); s.Says.String() != "Gen 3 x4, 3.94 GB/s" || s.Link.MBps < 3938.4 || s.Link.MBps > 3938.5 {
		t.Errorf("M2_2: %+v", s)
	}
	if !v.View.Status.Stops {
		t.Error("the soundings vanish and nothing stops")
	}
	if again := ask(t, h, "POST", tower+"/changes", place).view(); again.Revision != 2 {
		t.Errorf("the same request again made revision %d", again.Revision)
	}

	stale := ask(t, h, "POST", tower+"/changes", change(1, `{"do":"place","item":"item-4","socket":"M2_1"}`))
	p := stale.problem()
	if stale.Code != 409 || p.Current == nil || p.Current.Revision != 2 || p.Yours == nil || p.Yours.Socket != rig.On("M2_1") ||
		len(p.Missed) != 1 || p.Missed[0].Says.String() != "put Ternlight 500 into M2_2" {
		t.Errorf("a stale write: %d %+v", stale.Code, p)
	}
	if a := ask(t, h, "POST", tower+"/undo", `{"revision":2,"by":"Runa Gannet"}`); a.Code != 409 || a.problem().Detail != "the last change is by Oda Finch: put Ternlight 500 into M2_2; nothing was changed" {
		t.Errorf("what somebody else did is undone unasked: %d %s", a.Code, a.Body)
	}
	undone := ask(t, h, "POST", tower+"/undo", `{"revision":2,"by":"Runa Gannet","others":true}`).view()
	if undone.Revision != 3 || len(undone.View.Job.Planned.Placements) != 3 || undone.Journal[2].Says.String() != "undid: put Ternlight 500 into M2_2" ||
		undone.Journal[2].By != "Runa Gannet" {
		t.Errorf("undo: revision %d, %+v", undone.Revision, undone.Journal)
	}
	if a := ask(t, h, "POST", tower+"/undo", `{"revision":2}`); a.Code != 409 {
		t.Errorf("a stale undo is %d", a.Code)
	}
}

// A new job, its file, and the file brought into another shop.
func TestNewJobAndFile(t *testing.T) {
	h := shop(t)
	body := `{"title":"Lock-keeper's thin client","sheet":"plover-m2","wish":{"text":"quiet","memoryBytes":17179869184},"key":"n1"}`
	made := ask(t, h, "POST", "/api/jobs", body)
	v := made.view()
	if made.Code != 201 || !strings.HasPrefix(string(v.View.Job.ID), "lock-keeper-s-thin-client-") || v.View.Status.Next.String() != "Enter what is in the machine" {
		t.Fatalf("%d %s %+v", made.Code, v.View.Job.ID, v.View.Status)
	}
	got := ask(t, h, "GET", "/api/jobs/"+string(v.View.Job.ID)+"/file", "")
	if d := got.Header().Get("Content-Disposition"); !strings.Contains(d, string(v.View.Job.ID)+".job.json") {
		t.Errorf("Content-Disposition %q", d)
	}
	other := shop(t)
	in := ask(t, other, "POST", "/api/files?by=Wim", got.Body.String())
	if in.Code != 201 || !strings.Contains(in.Body.String(), `"kind":"job"`) {
		t.Fatalf("%d %s", in.Code, in.Body)
	}
	if cards := bench(t, other, "thin client"); len(cards) != 1 || cards[0].Wish != "quiet" {
		t.Errorf("%+v", cards)
	}
	for _, f := range []string{"sheets/plover-m2.sheet.json", "parts/skerry-240.part.json"} {
		if a := ask(t, other, "POST", "/api/files", string(file(t, f))); a.Code != 201 {
			t.Errorf("%s: %d %s", f, a.Code, a.Body)
		}
	}
	for path, n := range map[string]int{"/api/sheets": 11, "/api/parts": 32, tower + "/offers/item-4": 2, tower + "/offers/item-1?in=found": 4} {
		var list []json.RawMessage
		if err := json.Unmarshal(ask(t, other, "GET", path, "").Body.Bytes(), &list); err != nil || len(list) != n {
			t.Errorf("%s: %d, want %d (%v)", path, len(list), n, err)
		}
	}
}

func file(t testing.TB, name string) []byte {
	t.Helper()
	b, err := demo.Files.ReadFile(name)
	if err != nil {
		t.Fatal(err)
	}
	return b
}

// A sheet is shown with its rules in words, and its file can be brought in again.
func TestSheetView(t *testing.T) {
	h := shop(t)
	var v server.SheetView
	if err := json.Unmarshal(ask(t, h, "GET", "/api/sheets/kittiwake-d2", "").Body.Bytes(), &v); err != nil {
		t.Fatal(err)
	}
	if v.Rules[0].String() != "when M2_2 holds anything, PCIE1 is at most x8 (manual p. 12)" || len(v.Empty.Sockets) != len(v.Sheet.Sockets) {
		t.Errorf("%q, %d of %d sockets", v.Rules, len(v.Empty.Sockets), len(v.Sheet.Sockets))
	}
	f := ask(t, h, "GET", "/api/sheets/kittiwake-d2/file", "")
	if a := ask(t, h, "POST", "/api/files", f.Body.String()); a.Code != 201 || !strings.Contains(f.Header().Get("Content-Disposition"), "kittiwake-d2.sheet.json") {
		t.Errorf("%d %s", a.Code, a.Body)
	}
	if a := ask(t, h, "GET", "/api/sheets/nobody", ""); a.Code != 404 {
		t.Errorf("no such sheet: %d", a.Code)
	}
}

// TestPictures puts a page of the manual beside a sheet, reads it, and takes it away; what is
// no picture, too large or not said is refused, and nothing is kept of it.
func TestPictures(t *testing.T) {
	h := shop(t)
	const at = "/api/sheets/harrier-t4/pictures"
	there := answered[server.SheetView](ask(t, h, "GET", "/api/sheets/harrier-t4", "")).Pictures
	if len(there) != 1 || there[0].Says != "page 18" || there[0].Width != 900 {
		t.Fatalf("the demo shop has %+v", there)
	}
	var drawn bytes.Buffer
	if err := png.Encode(&drawn, image.NewGray(image.Rect(0, 0, 40, 30))); err != nil {
		t.Fatal(err)
	}
	for _, c := range []struct {
		path, body string
		code       int
		says       string
	}{
		{at, drawn.String(), 422, "what the picture shows has 0 letters"},
		{at + "?says=" + strings.Repeat("x", 121), drawn.String(), 422, "what the picture shows has 121 letters"},
		{at + "?says=page+31", "no picture", 422, "it is no JPEG, PNG or WebP picture"},
		{at + "?says=page+31", drawn.String()[:60], 422, "it cannot be read to its end"},
		{at + "?says=page+31", strings.Repeat("x", 24<<20+1), 413, "larger than the 24576 KiB"},
		{"/api/sheets/nobody/pictures?says=page+31", drawn.String(), 404, "not found"},
	} {
		if a := ask(t, h, "POST", c.path, c.body, "Content-Type", "image/png"); a.Code != c.code || !strings.Contains(a.Body.String(), c.says) {
			t.Errorf("%s: %d %.200s, want %d %s", c.path[:min(80, len(c.path))], a.Code, a.Body, c.code, c.says)
		}
	}
	for range 2 { // sent twice, it is kept once
		a := ask(t, h, "POST", at+"?says=page+31&by=Ines&key=one", drawn.String(), "Content-Type", "image/png")
		if now := answered[[]server.SheetPicture](a); len(now) != 2 || now[1].Says != "page 31" || now[1].By != "Ines" || now[1].Height != 30 {
			t.Fatalf("kept: %d %s", a.Code, a.Body)
		} else {
			there = now
		}
	}
	seen := ask(t, h, "GET", at+"/"+string(there[1].ID), "")
	if img, err := jpeg.Decode(seen.Body); err != nil || seen.Header().Get("Content-Type") != "image/jpeg" || img.Bounds().Dx() != 40 {
		t.Errorf("what is seen: %v, %v", seen.Header(), err)
	}
	if now := answered[[]server.SheetPicture](ask(t, h, "DELETE", at+"/"+string(there[0].ID), "")); len(now) != 1 || now[0].Says != "page 31" {
		t.Errorf("taken away: %+v", now)
	}
	if a := ask(t, h, "GET", at+"/"+string(there[0].ID), ""); a.Code != 404 {
		t.Errorf("what was taken away: %d", a.Code)
	}
}

// The shelf: words in, more of the same, corrections, lists in and out.
func TestShelf(t *testing.T) {
	h := shop(t)
	if got := onShelf(t, h); len(got) != 32 || len(got["ternlight-1000"].Used) != 3 || !got["ternlight-1000"].More || got["raft-4"].More {
		t.Errorf("%d rows; Ternlight 1000 is used in %v", len(got), got["ternlight-1000"].Used)
	}
	const id = "16gb-ddr4-3200-dimm-2r"
	add := `{"text":"2x16 DDR4-3200 DIMM 2R","price":"42.5","condition":"used","serials":"S1 S2"}`
	ask(t, h, "POST", "/api/shelf/words", add)
	got := answered[server.ShelfRow](ask(t, h, "POST", "/api/shelf/words", add))
	if got.Stock.Count != 4 || got.Price != "42.50" || got.Stock.Condition != "used" || len(got.Stock.Serials) != 4 {
		t.Errorf("twice two modules are %+v", got)
	}
	got.Stock.Count = 1
	fix, _ := json.Marshal(server.Restock{Revision: got.Revision, By: "Oda Finch", Key: "fix", Stock: got.Stock})
	for range 2 { // sent twice, it is done once
		if now := answered[server.ShelfRow](ask(t, h, "POST", "/api/shelf", string(fix))); now.Stock.Count != 1 || now.Revision != got.Revision+1 {
			t.Errorf("corrected to %+v", now)
		}
	}
	stale, _ := json.Marshal(server.Restock{Revision: got.Revision, Stock: got.Stock})
	if a := ask(t, h, "POST", "/api/shelf", string(stale)); a.Code != 409 || !strings.Contains(a.Body.String(), "is at revision 3, and the change was made at revision 2; nothing was changed") {
		t.Errorf("a correction of what is no longer so: %d %s", a.Code, a.Body)
	}
	if a := ask(t, h, "GET", "/api/shelf/parts/"+id+"/history", ""); !strings.Contains(a.Body.String(), `"says":"2 more, 4 in all; serials listed otherwise"`) || !strings.Contains(a.Body.String(), `"by":"Oda Finch","says":"3 fewer, 1 in all"`) {
		t.Errorf("history %s", a.Body)
	}
	for _, path := range []string{"/api/shelf/parts/nothing", "/api/shelf/parts/nothing/history"} {
		if a := ask(t, h, "GET", path, ""); a.Code != 404 {
			t.Errorf("%s: %d %s", path, a.Code, a.Body)
		}
	}
	if now := answered[server.ShelfRow](ask(t, h, "GET", "/api/shelf/parts/"+id, "")); now.Stock.Count != 1 || now.Revision != got.Revision+1 {
		t.Errorf("it is %+v", now)
	}
	if got.Stock.Count != 1 {
		t.Errorf("corrected to %+v", got)
	}
	list := ask(t, h, "GET", "/api/shelf/csv", "")
	if !strings.Contains(list.Body.String(), id+",16GB DDR4-3200 DIMM 2R,,16GB DDR4-3200 DIMM 2R,1,42.50,used,S1 S2 S1 S2\n") {
		t.Errorf("%s", list.Body)
	}
	text := "id,shorthand,count\nraft-4,,7\nx,banana,1\n"
	if a := ask(t, h, "POST", "/api/shelf/csv", text); !strings.Contains(a.Body.String(), `"good":1,"taken":0`) || !strings.Contains(a.Body.String(), `"line":3,"column":"shorthand"`) {
		t.Errorf("looked at: %s", a.Body)
	}
	if now := onShelf(t, h)["raft-4"]; now.Stock.Count != 1 {
		t.Error("a list that was only looked at was taken")
	}
	ask(t, h, "POST", "/api/shelf/csv?take=true", text)
	if now := onShelf(t, h)["raft-4"]; now.Stock.Count != 7 || now.Stock.Part.Card == nil {
		t.Errorf("taken as %+v", now)
	}
	for body, want := range map[string]string{
		`{"text":"512GB"}`:                             "/text: memory or a drive? it could be DDR4 or DDR5 or nvme or sata; add one of these words",
		`{"text":"banana"}`:                            `/text: "banana" means nothing here`,
		`{"text":"1TB sata 2.5","price":"a lot"}`:      `/price: "a lot" is not a price`,
		`{"text":"1TB sata 2.5","condition":"broken"}`: "/condition: value must be one of",
		`{"text":"1TB nvme 2.5"}`:                      "/text: a 2.5 or 3.5-inch drive over PCIe has the U.2 connector",
	} {
		if p := ask(t, h, "POST", "/api/shelf/words", body).problem(); p.Status != 422 || !strings.Contains(p.Detail, want) {
			t.Errorf("%s: %d %q, want %q", body, p.Status, p.Detail, want)
		}
	}
	if p := ask(t, h, "POST", "/api/shelf/csv", "name,price\n").problem(); p.Status != 422 || !strings.Contains(p.Detail, `no column "id"`) {
		t.Errorf("a list without ids: %+v", p)
	}
}

// Every question of the slide rule has its answer, and a wrong one its place.
func TestAsk(t *testing.T) {
	h := shop(t)
	for path, want := range map[string]string{
		"link?gen=4&lanes=4&gen2=3&lanes2=4":             `"says":"Gen 3 x4, 3.94 GB/s"`,
		"link?gen=4&lanes=4":                             `"says":"Gen ? x?, unknown"`,
		"uplink?upGen=3&upLanes=4&gen=3&lanes=4&count=2": `"says":"1.76 GB/s each"`,
		"capacity?text=2+TB":                             `"value":"1.81 TB"`,
		"code?text=PC4-21300":                            `"says":"DDR4-2666"`,
		"part?text=1TB+nvme+2280":                        `"what":"it does not say"`,
		"keys?key=M&protocols=pcie,sata":                 `"card":"M-key NVMe x4"`,
		"part?text=banana":                               `"fault":"\"banana\" means nothing here`,
		"population?sheet=plover-m2&text=2x8+DDR4-2666":  `"says":"16 GiB, 2666 MT/s, dual channel"`,
	} {
		if a := ask(t, h, "GET", "/api/ask/"+path, ""); a.Code != 200 || !strings.Contains(a.Body.String(), want) {
			t.Errorf("%s: %d %s\nwant %s", path, a.Code, a.Body, want)
		}
	}
	for path, want := range map[string]string{
		"link?gen=9":                       `/gen: "9" is not a number from 1 to 6`,
		"dance":                            `"dance" is no question`,
		"population?sheet=nobody&text=2x8": `sheet "nobody": not found`,
		"uplink?upGen=3&upLanes=4&count=0": `/count: "0" is not a number from 1 to 64`,
	} {
		if p := ask(t, h, "GET", "/api/ask/"+path, "").problem(); p.Status/100 != 4 || !strings.Contains(p.Detail, want) {
			t.Errorf("%s: %d %q, want %q", path, p.Status, p.Detail, want)
		}
	}
}

// The application's files: deep links, caches, compression, headers.
func TestFiles(t *testing.T) {
	h := shop(t)
	for _, c := range []struct {
		method, path, accept string
		status               int
		typ, cache, encoding string
		body                 string
	}{
		{"GET", "/", "", 200, "text/html; charset=utf-8", "no-cache", "", page},
		{"GET", "/jobs/a.b/fit", "", 200, "text/html; charset=utf-8", "no-cache", "", page},
		{"GET", "/index.html", "", 200, "text/html; charset=utf-8", "no-cache", "", page},
		{"GET", "/../../etc/passwd", "", 200, "text/html; charset=utf-8", "no-cache", "", page},
		{"GET", "/theme.js", "gzip, br", 200, "text/javascript; charset=utf-8", "no-cache", "", "/* theme */"},
		{"GET", "/_app/immutable/app.js", "gzip, br", 200, "text/javascript; charset=utf-8", "public, max-age=31536000, immutable", "br", "brotli"},
		{"GET", "/_app/immutable/app.js", "", 200, "text/javascript; charset=utf-8", "public, max-age=31536000, immutable", "", "let a = 1"},
		{"GET", "/_app/immutable/font-x.woff2", "", 200, "font/woff2", "public, max-age=31536000, immutable", "", "font"},
		{"GET", "/_app/immutable/gone.js", "", 404, "application/problem+json", "", "", ""},
		{"POST", "/jobs/x", "", 405, "application/problem+json", "", "", ""},
	} {
		a := ask(t, h, c.method, c.path, "", "Accept-Encoding: "+c.accept)
		g := a.Header().Get
		if a.Code != c.status || g("Content-Type") != c.typ || g("Cache-Control") != c.cache || g("Content-Encoding") != c.encoding || c.body != "" && a.Body.String() != c.body {
			t.Errorf("%s %s: %d %q %q %q %.40q", c.method, c.path, a.Code, g("Content-Type"), g("Cache-Control"), g("Content-Encoding"), a.Body)
		}
		csp := g("Content-Security-Policy")
		if !strings.Contains(csp, "script-src 'self' 'sha256-") || strings.Contains(strings.Split(csp, "style-src")[0], "unsafe-inline") ||
			g("X-Content-Type-Options") != "nosniff" || g("Referrer-Policy") != "no-referrer" {
			t.Errorf("%s: headers %v", c.path, a.Header())
		}
	}
	plain, packed := ask(t, h, "GET", tower, ""), ask(t, h, "GET", tower, "", "Accept-Encoding: gzip")
	if packed.Header().Get("Content-Encoding") != "gzip" || packed.Body.Len() > plain.Body.Len()/3 {
		t.Errorf("a job is sent as %d bytes, packed %d (%s)", plain.Body.Len(), packed.Body.Len(), packed.Header().Get("Content-Encoding"))
	}
}

// Neither another name for this machine nor a page of another site gets through.
func TestOnlyFromHere(t *testing.T) {
	h := shop(t)
	for host, want := range map[string]int{"127.0.0.1:8480": 200, "localhost": 200, "[::1]:8480": 200, "bay.example:8480": 421, "10.0.0.4": 421} {
		if a := ask(t, h, "GET", "/api/health", "", "Host: "+host); a.Code != want {
			t.Errorf("Host %s: %d, want %d", host, a.Code, want)
		}
	}
	if a := ask(t, h, "POST", tower+"/undo", `{"revision":1}`, "Sec-Fetch-Site: cross-site"); a.Code != 403 || a.problem().Detail != "a page of another site may change nothing here" {
		t.Errorf("a change from another site: %d %s", a.Code, a.Body)
	}
	for _, c := range []struct{ address, want string }{
		{"0.0.0.0:0", "Deep Bay listens on this machine only"}, {"192.0.2.7:80", "there is no access control yet"},
		{":8480", "Deep Bay listens on this machine only"}, {"nonsense", "is not an address"},
	} {
		l, err := server.Listen(t.Context(), c.address)
		if err == nil {
			l.Close()
		}
		if err == nil || !strings.Contains(err.Error(), c.want) {
			t.Errorf("%s: %v", c.address, err)
		}
	}
}

// A fault inside is logged, and the client learns nothing but that.
func TestFault(t *testing.T) {
	var log bytes.Buffer
	h, err := server.New(server.Options{Data: broken{}, Files: fstest.MapFS{}, Now: time.Now, Log: slog.New(slog.NewTextHandler(&log, nil))})
	if err != nil {
		t.Fatal(err)
	}
	for _, path := range []string{"/api/sheets", "/api/parts"} {
		a := ask(t, h, "GET", path, "")
		if p := a.problem(); a.Code != 500 || strings.Contains(p.Detail, "disk") || p.Detail != "the request was not carried out; the server's log says more" {
			t.Errorf("%s: %d %q", path, a.Code, p.Detail)
		}
	}
	if !strings.Contains(log.String(), "the disk is gone") || !strings.Contains(log.String(), "a rule went mad") {
		t.Errorf("log: %s", log.String())
	}
	if a := ask(t, h, "GET", "/", ""); !strings.Contains(a.Body.String(), "The front end is not built") {
		t.Errorf("without a front end: %s", a.Body)
	}
}

// Serve lets a running request finish before it returns.
func TestGracefulStop(t *testing.T) {
	l, err := server.Listen(t.Context(), "127.0.0.1:0")
	if err != nil {
		t.Fatal(err)
	}
	ctx, stop := contextWithCancel(t)
	begun := make(chan struct{})
	h := http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) {
		close(begun)
		<-ctx.Done()
		io.WriteString(w, "finished")
	})
	served := make(chan error, 1)
	go func() { served <- server.Serve(ctx, l, h, slog.New(slog.NewTextHandler(io.Discard, nil))) }()
	got := make(chan string, 1)
	go func() {
		r, err := http.Get("http://" + l.Addr().String())
		if err != nil {
			got <- err.Error()
			return
		}
		defer r.Body.Close()
		b, _ := io.ReadAll(r.Body)
		got <- string(b)
	}()
	<-begun
	stop()
	if s := <-got; s != "finished" {
		t.Errorf("the running request got %q", s)
	}
	if err := <-served; err != nil {
		t.Errorf("Serve: %v", err)
	}
}

// Reading a job and the answer of the command line are one: the view's planned
// part is the check.
func TestSameAnswer(t *testing.T) {
	h := shop(t)
	v := ask(t, h, "GET", tower, "").view()
	c := say.CheckOf(say.Plain, &v.View.Job)
	a, _ := json.Marshal(c.Answer)
	b, _ := json.Marshal(v.View.Planned)
	if !bytes.Equal(a, b) {
		t.Errorf("%s\nagainst\n%s", a, b)
	}
}

// A sheet is judged while it is written, kept in versions, refused when stale, and
// never kept with a fault in it.
func TestSheetEditing(t *testing.T) {
	h := shop(t)
	var layouts []machine.Sheet
	if err := json.Unmarshal(ask(t, h, "GET", "/api/layouts", "").Body.Bytes(), &layouts); err != nil || len(layouts) < 6 {
		t.Fatalf("%d layouts, %v", len(layouts), err)
	}
	draft := layouts[0]
	draft.ID, draft.Name = "tern-d4", "Tern D4"
	text := func(v any) string {
		b, err := json.Marshal(v)
		if err != nil {
			t.Fatal(err)
		}
		return string(b)
	}
	check := func(body string) (out server.SheetCheck) {
		t.Helper()
		if a := ask(t, h, "POST", "/api/sheets", body); a.Code != 200 || json.Unmarshal(a.Body.Bytes(), &out) != nil {
			t.Fatalf("%d %s", a.Code, a.Body)
		}
		return out
	}
	if c := check(text(draft)); len(c.Problems) > 0 || len(c.Empty.Sockets) != len(draft.Sockets) {
		t.Errorf("a layout has %v", c.Problems)
	}
	bad := draft
	bad.Sockets = slices.Clone(draft.Sockets)
	bad.Sockets[0].Group = "gone"
	bad.Rules = []machine.Rule{{ID: "r", When: []machine.Condition{{Setting: "none", Is: "x"}}, Then: []machine.Effect{{Socket: "PCIE1", Off: true}}}}
	if c := check(text(bad)); len(c.Problems) != 2 || c.Problems[0].Pointer != "/sockets/0/group" || c.Empty == nil {
		t.Errorf("%+v", c.Problems)
	}
	if c := check(strings.Replace(text(draft), `"openings"`, `"opened"`, 1)); c.Empty == nil {
		t.Error("a sheet that reads is not drawn")
	}
	if c := check(`{"format":"deepbay/sheet","version":1,"sockets":3}`); len(c.Problems) == 0 || c.Empty != nil {
		t.Errorf("%+v", c)
	}
	put := func(v machine.Sheet, revision int, key string) answer {
		return ask(t, h, "PUT", "/api/sheets/"+string(v.ID), text(server.PutSheet{Revision: revision, Key: key, By: "Oda Finch", Sheet: v}))
	}
	view := func(a answer) (v server.SheetView) {
		t.Helper()
		if a.Code != 200 || json.Unmarshal(a.Body.Bytes(), &v) != nil {
			t.Fatalf("%d %s", a.Code, a.Body)
		}
		return v
	}
	if v := view(put(draft, 0, "k1")); v.Revision != 1 || v.History[0].Says.String() != "made" || v.History[0].By != "Oda Finch" {
		t.Errorf("made as %d, %+v", v.Revision, v.History)
	}
	wider := draft
	wider.Sockets = slices.Clone(draft.Sockets)
	wider.Sockets[0].Gen = 4
	for range 2 { // the second is the same request again
		if v := view(put(wider, 1, "k2")); v.Revision != 2 || v.History[1].Says.String() != "socket PCIE1: gen 4" {
			t.Errorf("kept as %d, %+v", v.Revision, v.History)
		}
	}
	if v := view(put(wider, 2, "k3")); v.Revision != 2 {
		t.Errorf("nothing changed and made revision %d", v.Revision)
	}
	if v := view(ask(t, h, "GET", "/api/sheets/tern-d4?at=1", "")); v.Revision != 1 || v.Sheet.Sockets[0].Gen != 0 || len(v.History) != 2 {
		t.Errorf("revision 1 is %+v", v.Revision)
	}
	for _, c := range []struct {
		a    answer
		code int
		want string
	}{
		{put(draft, 1, "k4"), 409, `"differs":["socket PCIE1: gen 4"]`},
		{put(draft, 0, "k5"), 409, "a sheet of this name is in the shop already"},
		{put(bad, 2, "k6"), 422, "/sheet/sockets/0/group"},
		{ask(t, h, "PUT", "/api/sheets/other", text(server.PutSheet{Sheet: draft})), 422, "the address says"},
		{ask(t, h, "PUT", "/api/sheets/tern-d4", `{"sheet":{}}`), 422, "/sheet"},
		{ask(t, h, "GET", "/api/sheets/tern-d4?at=9", ""), 404, "not found"},
		{ask(t, h, "GET", "/api/sheets/tern-d4?at=x", ""), 422, "is no revision"},
	} {
		if c.a.Code != c.code || !strings.Contains(c.a.Body.String(), c.want) {
			t.Errorf("%d %s, want %d with %s", c.a.Code, c.a.Body, c.code, c.want)
		}
	}
}

// The planner over HTTP: a plan, what clashes and what the shelf would cure, why not,
// baskets; and questions that cannot be asked.
func TestPlanner(t *testing.T) {
	h := shop(t)
	for _, c := range []struct {
		path, body string
		status     int
		want       []string
	}{
		{"echo-sounding-tower/plan", `{}`, 200, []string{`"end":"optimal"`, `"item":"item-4","socket":"M2_1"`, "2 of Sallow 4 GB come out"}},
		{"echo-sounding-tower/plan", `{"order":["in use"],"bans":[{"item":"item-4","socket":"M2_1"}]}`, 200, []string{`"item":"item-4","socket":"M2_2"`}},
		{"lock-gate-recorder/plan", `{}`, 200, []string{`"end":"impossible"`, "take from the shelf: Slim plug adapter"}},
		{"lock-gate-recorder/plan", `{"useShelf":true}`, 200, []string{`"end":"optimal"`, `"takes":["haven-dock"]`}},
		{"echo-sounding-tower/plan", `{"order":["beauty"],"ports":["M2_9"]}`, 422, []string{`/order/0`, `/ports/0`, `no socket is named`}},
		{"echo-sounding-tower/plan", `{"colour":"red"}`, 422, []string{"this field is not known"}},
		{"nobody/plan", `{}`, 404, []string{"not found"}},
		{"echo-sounding-tower/why-not", `{"question":{},"item":"item-4","socket":"M2_2"}`, 200, []string{"Ternlight 500 works in M2_2, but: system drive 3."}},
		{"echo-sounding-tower/why-not", `{"question":{},"item":"x","socket":"M2_2"}`, 422, []string{`/item`}},
		{"echo-sounding-tower/shop", `{"systemBytes":240000000000,"dataBytes":2000000000000,"atMostCents":20000}`, 200, []string{`"part":"mudlark-2000"`, "combinations of what is on the shelf"}},
		{"echo-sounding-tower/shop", `{"atMostCents":-1}`, 422, []string{"/atMostCents"}},
	} {
		a := ask(t, h, "POST", "/api/jobs/"+c.path, c.body)
		if a.Code != c.status {
			t.Errorf("%s %s: %d %s", c.path, c.body, a.Code, a.Body)
		}
		for _, want := range c.want {
			if !strings.Contains(a.Body.String(), want) {
				t.Errorf("%s %s: lacks %s in %s", c.path, c.body, want, a.Body)
			}
		}
	}
}

// counted counts the jobs that are read.
type counted struct {
	*store.Store
	read *int
}

func (d counted) Job(ctx context.Context, id job.ID) (store.Kept, error) {
	*d.read++
	return d.Store.Job(ctx, id)
}

// What lists say of a job outlives the server: after a start only what changed is judged
// again, or everything if the program is another one.
func TestListAfterStart(t *testing.T) {
	path := filepath.Join(t.TempDir(), "shop.db")
	s := filledAt(t, path)
	db, err := sql.Open("sqlite", path)
	if err != nil {
		t.Fatal(err)
	}
	defer db.Close()
	var first string
	for _, c := range []struct {
		before string // what happens to the file
		reads  int
	}{
		{"", 18}, {"", 0}, {"UPDATE said SET program = 'another'", 18}, {"", 0}, {"UPDATE said SET doc = 'torn' WHERE job = 'echo-sounding-tower'", 1},
		{"UPDATE said SET revision = 9 WHERE job = 'echo-sounding-tower'", 1}, {"DELETE FROM said", 18}, {"", 0}, {"DROP TABLE said", 18},
	} {
		if _, err := db.ExecContext(t.Context(), c.before); err != nil {
			t.Fatal(err)
		}
		n := 0
		h := serving(t, counted{s, &n})
		body := ask(t, h, "GET", "/api/jobs", "").Body.String()
		if first == "" {
			first = body
		}
		if n != c.reads || body != first {
			t.Errorf("after %q %d jobs were read, want %d; the list is the same: %v", c.before, n, c.reads, body == first)
		}
	}
}

// ill is a shop in which one job cannot be read and another cannot be judged.
type ill struct{ *store.Store }

func (d ill) Job(ctx context.Context, id job.ID) (store.Kept, error) {
	k, err := d.Store.Job(ctx, id)
	switch id {
	case "tide-gauge-mini-pc":
		return k, errors.New("a stored job cannot be read")
	case "lock-gate-recorder":
		k.Job.Parts = nil // its pieces are nothing: judging them panics
	}
	return k, err
}

// One ill job takes no other down: the list names it, and the rest is as it was.
func TestIllJob(t *testing.T) {
	s := filled(t)
	h := serving(t, ill{s})
	for range 2 { // the second is answered from what is kept
		cards := bench(t, h, "")
		n := 0
		for _, c := range cards {
			bad := c.ID == "tide-gauge-mini-pc" || c.ID == "lock-gate-recorder"
			if bad != !c.Ill.IsZero() || bad == (c.Status.Next.String() != "") {
				t.Errorf("%s: ill because %q, next %q", c.ID, c.Ill, c.Status.Next)
			}
			if bad {
				n++
			}
		}
		if n != 2 || len(cards) != 18 {
			t.Errorf("%d of %d jobs are ill, want 2 of 18", n, len(cards))
		}
	}
	for path, want := range map[string]int{"/api/jobs/lock-gate-recorder": 500, "/api/jobs/tide-gauge-mini-pc": 500, tower: 200, "/api/shelf": 200} {
		if a := ask(t, h, "GET", path, ""); a.Code != want {
			t.Errorf("%s: %d", path, a.Code)
		}
	}
	for _, id := range []job.ID{"lock-gate-recorder", "tide-gauge-mini-pc"} { // what it cannot judge now, it could once
		ask(t, h, "POST", "/api/jobs/"+string(id)+"/back", `{}`) // and cannot show here, for this store stays ill
		if k, err := s.Job(t.Context(), id); err != nil || k.Revision != 2 {
			t.Errorf("%s is not brought back: revision %d, %v", id, k.Revision, err)
		}
	}
}

// What comes in and cannot be made sense of is refused in one way, and changes nothing.
func TestComesIn(t *testing.T) {
	shopNow := now
	s := filled(t)
	h, err := server.New(server.Options{Data: s, Version: "test", Now: func() time.Time { return shopNow },
		Log: slog.New(slog.NewTextHandler(io.Discard, nil)), Files: fstest.MapFS{"index.html": {Data: []byte(page)}}})
	if err != nil {
		t.Fatal(err)
	}
	long := strings.Repeat("x", 81)
	job := func(more string) string { return `{"title":"A","sheet":"harrier-t4","wish":{}` + more + `}` }
	for _, c := range []struct {
		path, body, header string
		year               int
		code               int
		want               string
	}{
		{"/api/jobs", `{"title":"A","title":"B","sheet":"harrier-t4","wish":{}}`, "", 2026, 422, "/title: this field is there twice"},
		{"/api/jobs", `{"title":"A","sheet":"harrier-t4","wish":{"text":"x","text":"y"}}`, "", 2026, 422, "/wish/text: this field is there twice"},
		{"/api/jobs", `{"title":"   ","sheet":"harrier-t4","wish":{}}`, "", 2026, 422, "/title: there is nothing but blanks"},
		{"/api/jobs", job(`,"by":"` + long + `"`), "", 2026, 422, "/by"},
		{"/api/files?by=" + long, `{}`, "", 2026, 422, "at most 80"},
		{"/api/jobs", job(""), "Content-Type: text/plain", 2026, 415, "application/json is read here"},
		{"/api/jobs", job(""), "", 12000, 503, "the year 12000"},
		{"/api/jobs", job(""), "", 1970, 503, "set the clock"},
		{"/api/shelf/words", `{"text":"64x8GB DDR4-3200 DIMM"}`, "Content-Type: application/json; charset=utf-8", 2026, 200, ""},
		{tower + "/changes", change(1, `{"do":"read","line":"link/USB1","text":"NaN"}`), "", 2026, 422, ""},
		{tower + "/changes", change(1, `{"do":"add","part":{"format":"deepbay/part","version":1,"id":"x","name":"x","module":{"generation":"ddr4","form":"dimm","sizeBytes":5000000000000000000}}}`), "", 2026, 422, "/change/part/module/sizeBytes"},
		{"/api/files", `{"format":"deepbay/part","version":1,"id":"skerry-480","name":"Other","drive":{"form":"2.5in","protocol":"sata"}}`, "", 2026, 409, "another part of the id"},
		{"/api/files?replace=true", `{"format":"deepbay/part","version":1,"id":"skerry-480","name":"Other","drive":{"form":"2.5in","protocol":"sata"}}`, "", 2026, 201, ""},
		{"/api/files", `{"format":"deepbay/part","version":1,"id":"skerry-480","name":"Other","drive":{"form":"2.5in","protocol":"sata"}}`, "", 2026, 201, ""}, // the same again
	} {
		shopNow = time.Date(c.year, 11, 25, 10, 0, 0, 0, time.UTC)
		var headers []string
		if c.header != "" {
			headers = append(headers, c.header)
		}
		if a := ask(t, h, "POST", c.path, c.body, headers...); a.Code != c.code || !strings.Contains(a.Body.String(), c.want) {
			t.Errorf("%s %s in %d: %d %s, want %d with %q", c.path, c.body, c.year, a.Code, a.Body, c.code, c.want)
		}
	}
	for _, r := range []struct{ method, path, host string }{{"GET", "/api/jobs", ""}, {"GET", "/api/nothing", ""}, {"DELETE", "/api/jobs", ""}, {"GET", "/api/jobs", "Host: harbour.example"}, {"POST", "/api/jobs", "Sec-Fetch-Site: cross-site"}} {
		var headers []string
		if r.host != "" {
			headers = append(headers, r.host)
		}
		a := ask(t, h, r.method, r.path, "", headers...)
		if a.Header().Get("Cache-Control") != "no-store" || a.Header().Get("Content-Security-Policy") == "" || a.Header().Get("X-Content-Type-Options") != "nosniff" {
			t.Errorf("%s %s %s: %d with %v", r.method, r.path, r.host, a.Code, a.Header())
		}
	}
}

// Pieces that are put on the shelf at once by many are all there.
func TestShelfAtOnce(t *testing.T) {
	h := serving(t, filled(t))
	row := func() (out server.ShelfRow) {
		for _, r := range onShelf(t, h) {
			if r.Stock.Part.Name == "480GB sata 2.5 gen3 ssd" {
				out = r
			}
		}
		return out
	}
	const many = 60
	var all sync.WaitGroup
	for range many {
		all.Go(func() {
			if a := ask(t, h, "POST", "/api/shelf/words", `{"text":"480 GB ssd 2.5 sata gen3"}`); a.Code != 200 {
				t.Errorf("%d %s", a.Code, a.Body)
			}
		})
	}
	all.Wait()
	full := row()
	if full.Stock.Count != many || full.Revision != many {
		t.Errorf("%d of %d pieces are on the shelf, at revision %d", full.Stock.Count, many, full.Revision)
	}
	full.Stock.Count = shelf.Most - 10
	b, err := json.Marshal(server.Restock{Revision: full.Revision, Stock: full.Stock})
	if err != nil {
		t.Fatal(err)
	}
	if a := ask(t, h, "POST", "/api/shelf", string(b)); a.Code != 200 {
		t.Fatalf("%d %s", a.Code, a.Body)
	}
	if a := ask(t, h, "POST", "/api/shelf/words", `{"text":"64x480GB sata 2.5 gen3 ssd"}`); a.Code != 422 || !strings.Contains(a.Body.String(), "a shelf holds at most 100000") || row().Stock.Count != full.Stock.Count {
		t.Errorf("%d %s", a.Code, a.Body)
	}
}

// A key belongs to its request: sent again it is answered as the first time, what it made
// included, also by many at once; with anything else it is refused, wherever it is sent.
func TestKeys(t *testing.T) {
	h := serving(t, filled(t))
	create := `{"title":"Buoy tower","sheet":"harrier-t4","wish":{},"key":"k1"}`
	first := ask(t, h, "POST", "/api/jobs", create)
	if first.Code != 201 {
		t.Fatalf("%d %s", first.Code, first.Body)
	}
	var all sync.WaitGroup
	made := make([]job.ID, 20)
	for i := range made {
		all.Go(func() {
			made[i] = ask(t, h, "POST", "/api/jobs", `{"title":"Wave tower","sheet":"harrier-t4","wish":{},"key":"k2"}`).view().View.Job.ID
		})
	}
	all.Wait()
	if slices.ContainsFunc(made, func(id job.ID) bool { return id != made[0] || id == "" }) {
		t.Errorf("one request made %v", made)
	}
	mine := "/api/jobs/" + string(first.view().View.Job.ID)
	tick := `{"revision":1,"key":"k3","change":{"do":"wish","wish":{"text":"quiet"}}}`
	shelfRows := func() string { return ask(t, h, "GET", "/api/shelf", "").Body.String() }
	for _, c := range []struct {
		path, body string
		code       int
		want       string
	}{
		{"/api/jobs", create, 201, string(first.view().View.Job.ID)},
		{"/api/jobs", strings.Replace(create, "Buoy", "Quay", 1), 422, "the key names another request"},
		{mine + "/changes", tick, 200, `"revision":2`},
		{mine + "/changes", tick, 200, `"revision":2`},
		{mine + "/undo", `{"revision":2,"key":"k3"}`, 422, "the key names another request"},
		{tower + "/changes", tick, 422, "the key names another request"},
		{"/api/shelf/words", `{"text":"480 GB ssd 2.5 sata gen3","key":"k4"}`, 200, ""},
		{"/api/shelf/words", `{"text":"480 GB ssd 2.5 sata gen3","key":"k4"}`, 200, ""},
		{"/api/shelf/words", `{"text":"2x480 GB ssd 2.5 sata gen3","key":"k4"}`, 422, "the key names another request"},
		{mine + "/undo", `{"revision":2,"key":"k5"}`, 200, `"revision":3`},
	} {
		if a := ask(t, h, "POST", c.path, c.body); a.Code != c.code || !strings.Contains(a.Body.String(), c.want) {
			t.Errorf("%s %s: %d %.300s, want %d with %q", c.path, c.body, a.Code, a.Body, c.code, c.want)
		}
	}
	if !strings.Contains(shelfRows(), `"name":"480GB sata 2.5 gen3 ssd","drive":{"form":"2.5in","protocol":"sata","capacityBytes":480103981056,"media":"flash","gen":3}},"count":1`) {
		t.Errorf("the shelf has %s", shelfRows())
	}
}

// What a change is answered with is what any other server would say of the job afterwards;
// and what cannot be said is not carried out.
func TestAnswerBeforeCommit(t *testing.T) {
	s := filled(t)
	ill := false
	speak := func(text string) string {
		if ill {
			ill = false // what is said of the panic has words
			panic("no words")
		}
		return text
	}
	h, err := server.New(server.Options{Data: s, Version: "test", Now: func() time.Time { return now }, Language: speak,
		Log: slog.New(slog.NewTextHandler(io.Discard, nil)), Files: fstest.MapFS{"index.html": {Data: []byte(page)}}})
	if err != nil {
		t.Fatal(err)
	}
	revision := 1
	for _, do := range []string{
		`{"do":"place","item":"item-4","socket":"M2_1"}`, `{"do":"place","item":"item-5","socket":"B2"}`, `{"do":"take out","item":"item-1"}`, `{"do":"set","setting":"sata-mode","value":"raid"}`,
		`{"do":"add","text":"1TB nvme 2280 gen4 x4","new":true}`, `{"do":"wish","wish":{"text":"more"}}`, `{"do":"read","line":"total","text":"16 GB"}`,
	} {
		ill = true
		if a := ask(t, h, "POST", tower+"/changes", change(revision, do)); a.Code != 500 || !strings.Contains(a.Body.String(), "not carried out") {
			t.Errorf("%s that cannot be worded: %d %s", do, a.Code, a.Body)
		}
		ill = false
		if k, err := s.Job(t.Context(), "echo-sounding-tower"); err != nil || k.Revision != revision {
			t.Fatalf("%s was not carried out, and is there as revision %d, %v", do, k.Revision, err)
		}
		a := ask(t, h, "POST", tower+"/changes", change(revision, do))
		if a.Code != 200 {
			t.Fatalf("%s: %d %s", do, a.Code, a.Body)
		}
		revision++
		for name, other := range map[string]http.Handler{"the same": h, "another": serving(t, s)} {
			if b := ask(t, other, "GET", tower, ""); b.Body.String() != a.Body.String() {
				t.Errorf("%s: %s server says\n%s\nthe answer was\n%s", do, name, b.Body, a.Body)
			}
		}
	}
}

// One damaged record takes no other down: it is named, not written over, and the rest is as
// it was.
func TestDamagedRecords(t *testing.T) {
	path := filepath.Join(t.TempDir(), "shop.db")
	s := filledAt(t, path)
	db, err := sql.Open("sqlite", path)
	if err != nil {
		t.Fatal(err)
	}
	defer db.Close()
	for _, q := range []string{
		`UPDATE jobs SET doc = replace(replace(doc, 'Tide-gauge', 'Tide-gauhe'), '"owner"', '"owmer"') WHERE id = 'tide-gauge-mini-pc'`,
		`UPDATE sheets SET doc = replace(doc, 'Harrier', 'Harriet') WHERE id = 'harrier-t4'`,
		`UPDATE parts SET doc = replace(doc, 'SATA', 'SBTA') || ' ' WHERE id = 'skerry-480'`,
		`UPDATE jobs SET revision = 65537 WHERE id = 'wave-model-desktop'`,
		`UPDATE stock SET count = count + 64 WHERE part = 'raft-4'`,
		`UPDATE sheets SET revision = 3 WHERE id = 'gannet-d1'`,
	} {
		if _, err := db.ExecContext(t.Context(), q); err != nil {
			t.Fatal(err)
		}
	}
	h := serving(t, s)
	for _, c := range []struct {
		method, path, body string
		code               int
		want               string
	}{
		{"GET", "/api/jobs", "", 200, `"id":"tide-gauge-mini-pc","title":"tide-gauge-mini-pc"`},
		{"GET", "/api/jobs/tide-gauge-mini-pc", "", 500, "its bytes are others than those that were kept"},
		{"POST", "/api/jobs/tide-gauge-mini-pc/changes", `{"revision":1,"change":{"do":"wish","wish":{}}}`, 500, "is damaged"},
		{"GET", "/api/jobs", "", 200, `"id":"wave-model-desktop","title":"wave-model-desktop"`},
		{"GET", "/api/jobs/wave-model-desktop", "", 500, "other than what was kept"},
		{"POST", "/api/jobs/wave-model-desktop/changes", `{"revision":65537,"change":{"do":"wish","wish":{}}}`, 500, "is damaged"},
		{"GET", "/api/sheets/gannet-d1", "", 500, "other than what was kept"},
		{"POST", "/api/shelf", `{"revision":2,"by":"","stock":{"part":{"format":"deepbay/part","version":1,"id":"raft-4","name":"x","fitting":{"kind":"spacer"}},"count":1}}`, 500, "is damaged"},
		{"GET", tower, "", 200, ""},
		{"GET", "/api/sheets", "", 200, "kittiwake-d2"},
		{"GET", "/api/sheets/harrier-t4", "", 500, "is damaged"},
		{"GET", "/api/sheets/harrier-t4?at=1", "", 200, `"revision":1`}, // of its history
		{"GET", "/api/sheets/kittiwake-d2", "", 200, ""},
		{"GET", "/api/shelf", "", 200, "skerry-240"},
		{"POST", "/api/shelf/words", `{"text":"480GB ssd 2.5 sata gen3"}`, 200, ""},
		{"POST", "/api/shelf", `{"revision":2,"by":"","stock":{"part":{"format":"deepbay/part","version":1,"id":"skerry-480","name":"x","drive":{"form":"2.5in","protocol":"sata"}},"count":1}}`, 500, "is damaged"},
		{"GET", "/api/health", "", 200, `part \"skerry-480\" is damaged`},
	} {
		if a := ask(t, h, c.method, c.path, c.body); a.Code != c.code || !strings.Contains(a.Body.String(), c.want) {
			t.Errorf("%s %s: %d %.400s, want %d with %q", c.method, c.path, a.Code, a.Body, c.code, c.want)
		}
	}
	if a := ask(t, h, "GET", "/api/jobs/tide-gauge-mini-pc/raw", ""); a.Code != 200 || !strings.Contains(a.Body.String(), "Tide-gauhe") {
		t.Errorf("what is there is %d %.300s", a.Code, a.Body)
	}
	found, err := store.Check(t.Context(), path)
	if err != nil || len(found.Faults) != 7 || found.Jobs != 18 {
		t.Errorf("%+v, %v", found, err)
	}

	// So do damaged sheets and parts, once, with what there was of them on the shelf.
	for _, c := range []struct{ what, id, then, want string }{
		{"sheet", "harrier-t4", "/api/sheets/harrier-t4", `"says":"brought back revision 1"`},
		{"sheet", "gannet-d1", "/api/sheets/gannet-d1", `"revision":2`},
		{"part", "skerry-480", "/api/shelf/parts/skerry-480/history", "brought back as it was at revision "},
		{"part", "raft-4", "/api/shelf/parts/raft-4", `"count":1`},
	} {
		at := "/api/damaged/" + c.what + "/" + c.id
		if a := ask(t, h, "GET", at, ""); a.Code != 200 || !strings.Contains(a.Body.String(), `"id"`) {
			t.Errorf("%s: %d %.300s", at, a.Code, a.Body)
		}
		for range 2 {
			if a := ask(t, h, "POST", at+"/back", `{"by":"Oda Finch","key":"back `+c.id+`"}`); a.Code != 200 || strings.Contains(a.Body.String(), c.id) {
				t.Errorf("%s: %d %s", at, a.Code, a.Body)
			}
		}
		if a := ask(t, h, "GET", c.then, ""); a.Code != 200 || !strings.Contains(a.Body.String(), c.want) {
			t.Errorf("%s: %d %.300s", c.then, a.Code, a.Body)
		}
		if a := ask(t, h, "POST", at+"/back", `{"key":"again"}`); a.Code != 409 || !strings.Contains(a.Body.String(), "it can be read as it is; nothing was changed") {
			t.Errorf("%s, in order: %d %s", at, a.Code, a.Body)
		}
	}
	for _, at := range []string{"/api/damaged/ship/x", "/api/damaged/part/nothing"} {
		if a := ask(t, h, "GET", at, ""); a.Code != 404 {
			t.Errorf("%s: %d", at, a.Code)
		}
		if a := ask(t, h, "POST", at+"/back", `{}`); a.Code != 404 {
			t.Errorf("%s: %d", at, a.Code)
		}
	}

	// Damaged jobs come back as they last were, and can be worked on again.
	for id, revision := range map[string]int{"tide-gauge-mini-pc": 2, "wave-model-desktop": 2} {
		for range 2 { // sent twice, it is done once
			v := ask(t, h, "POST", "/api/jobs/"+id+"/back", `{"by":"Oda Finch","key":"back `+id+`"}`).view()
			if v.Revision != revision || v.Journal[len(v.Journal)-1].Says.String() != "brought back as it was at revision 1" {
				t.Errorf("%s is back at revision %d: %v", id, v.Revision, v.Journal)
			}
		}
		ask(t, h, "POST", "/api/jobs/"+id+"/changes", change(revision, `{"do":"wish","wish":{"text":"on"}}`)).view()
		if a := ask(t, h, "POST", "/api/jobs/"+id+"/back", `{"key":"again"}`); a.Code != 409 {
			t.Errorf("%s, in order, is brought back: %d", id, a.Code)
		}
	}
	if a := ask(t, h, "GET", "/api/jobs", ""); strings.Contains(a.Body.String(), `"ill"`) {
		t.Errorf("still ill: %s", a.Body)
	}
	if a := ask(t, h, "GET", "/api/health", ""); !strings.Contains(a.Body.String(), `"status":"ok"`) {
		t.Errorf("said to be damaged: %s", a.Body)
	}
	if found, err := store.Check(t.Context(), path); err != nil || !found.Sound() {
		t.Errorf("%+v, %v", found, err)
	}
}

// Where many jobs are deleted, and one of them cannot be, the answer says how many have left
// and never that nothing was changed; those are gone from the bench, the others are not.
func TestPartlyForgotten(t *testing.T) {
	path := filepath.Join(t.TempDir(), "shop.db")
	s := filledAt(t, path)
	h := serving(t, s)
	k, err := s.Job(t.Context(), "lock-gate-recorder")
	if err != nil {
		t.Fatal(err)
	}
	k.Job.Owner, k.Job.Closed = "Lock keeper", &job.Closing{By: "Oda Finch", At: now}
	for n := range 7 {
		k.Job.ID = job.ID(fmt.Sprint("recorder-", n))
		if _, err := s.Put(t.Context(), store.Write{Job: k.Job, Done: fact.Of(job.TookIn), Stamp: job.Stamp{By: "Oda Finch", At: now}}); err != nil {
			t.Fatal(err)
		}
	}
	left := func() (n int) {
		for _, c := range bench(t, h, "") {
			if c.Owner == "Lock keeper" {
				n++
			}
		}
		return n
	}
	db, err := sql.Open("sqlite", path)
	if err != nil {
		t.Fatal(err)
	}
	defer db.Close()
	for _, c := range []struct {
		kept string
		left int
		says string
	}{
		{"recorder-2", 7, "not carried out"},
		{"recorder-6", 2, "5 of 7 jobs have left"},
	} {
		if _, err := db.ExecContext(t.Context(), fmt.Sprintf(`CREATE TRIGGER kept BEFORE DELETE ON jobs WHEN old.id = %q BEGIN SELECT RAISE(ABORT, 'it stays'); END`, c.kept)); err != nil {
			t.Fatal(err)
		}
		a := ask(t, h, "POST", "/api/owner/forget", `{"owner":"Lock keeper","jobs":7,"by":"Oda Finch","key":"x"}`)
		if n := left(); a.Code < 400 || !strings.Contains(a.Body.String(), c.says) || n != c.left || n < 7 && strings.Contains(a.Body.String(), "nothing was changed") {
			t.Errorf("%s stays: %d %s, and %d are left", c.kept, a.Code, a.Body, n)
		}
		if _, err := db.ExecContext(t.Context(), `DROP TRIGGER kept`); err != nil {
			t.Fatal(err)
		}
	}
	if a := ask(t, h, "POST", "/api/owner/forget", `{"owner":"Lock keeper","jobs":2,"by":"Oda Finch","key":"y"}`); a.Code != 200 || left() != 0 {
		t.Errorf("the rest: %d %s", a.Code, a.Body)
	}
}

// An owner's data is taken along whole and deleted, when all of it is closed and it is as
// many jobs as were seen; that there were jobs is told, and nothing else of them.
func TestOwner(t *testing.T) {
	s := filled(t)
	h := serving(t, s)
	jobs := []store.Owned{}
	for _, id := range []job.ID{"tide-gauge-mini-pc", "lock-gate-recorder"} {
		k, err := s.Job(t.Context(), id)
		if err != nil {
			t.Fatal(err)
		}
		k.Job.Owner = "Lock keeper"
		if _, err := s.Put(t.Context(), store.Write{Job: k.Job, From: 1, Done: fact.Of(job.ChangedWish), Stamp: job.Stamp{By: "Oda Finch", At: now}}); err != nil {
			t.Fatal(err)
		}
		jobs = append(jobs, store.Owned{Stand: store.Stand{ID: id, Revision: 2}})
	}
	bench(t, h, "") // all of it was said once
	of := answered[server.OwnerJobs](ask(t, h, "GET", "/api/owner?name=lock%20KEEPER", ""))
	if len(of.Jobs) != 2 || !strings.Contains(of.Keeps.String(), "of them 2 are open: close first") {
		t.Errorf("%+v", of)
	}
	forget := func(jobs int, key string) answer {
		return ask(t, h, "POST", "/api/owner/forget", fmt.Sprintf(`{"owner":"Lock keeper","jobs":%d,"by":"Oda Finch","key":%q}`, jobs, key))
	}
	if a := forget(2, "a"); a.Code != 409 || !strings.Contains(a.Body.String(), "close it first; nothing was changed") {
		t.Errorf("open ones: %d %s", a.Code, a.Body)
	}
	for _, k := range jobs {
		now, err := s.Job(t.Context(), k.ID)
		if err != nil {
			t.Fatal(err)
		}
		now.Job.Closed = &job.Closing{By: "Oda Finch", At: now.Updated}
		if _, err := s.Put(t.Context(), store.Write{Job: now.Job, From: 2, Done: fact.Of(job.ClosedJob), Stamp: job.Stamp{By: "Oda Finch", At: now.Updated}}); err != nil {
			t.Fatal(err)
		}
	}
	file := ask(t, h, "GET", "/api/owner/file?name=Lock%20keeper&by=Oda", "")
	z, err := zip.NewReader(bytes.NewReader(file.Body.Bytes()), int64(file.Body.Len()))
	if err != nil || len(z.File) != 5 || !strings.Contains(file.Header().Get("Content-Disposition"), "lock-keeper-20") {
		t.Fatalf("%v, %v, %v", err, z, file.Header())
	}
	f, err := z.Open("jobs/lock-gate-recorder.job.json")
	if err != nil {
		t.Fatal(err)
	}
	alone, err := io.ReadAll(f)
	if err != nil {
		t.Fatal(err)
	}
	for _, c := range []struct {
		method, path, body string
		code               int
		want               string
	}{
		{"GET", "/api/owner?name=nobody", "", 404, "not found"},
		{"GET", "/api/owner?name=%20-", "", 422, "no owner is named"},
		{"GET", "/api/owner/file?name=nobody", "", 404, "not found"},
		{"POST", "/api/owner/forget", `{"owner":"nobody","jobs":1,"by":""}`, 404, "not found"},
		{"POST", "/api/owner/forget", `{"owner":"Lock keeper","jobs":0,"by":""}`, 422, "/jobs"},
		{"POST", "/api/owner/forget", `{"owner":"Lock keeper","jobs":1,"by":""}`, 409, "by now there is more or less than 1 job of Lock keeper; nothing was changed"},
		{"GET", "/api/gone", "", 200, "[]"},
	} {
		if a := ask(t, h, c.method, c.path, c.body); a.Code != c.code || !strings.Contains(a.Body.String(), c.want) {
			t.Errorf("%s %s %s: %d %s", c.method, c.path, c.body, a.Code, a.Body)
		}
	}
	for range 2 { // sent twice it is done once
		if done := answered[server.Forgotten](forget(2, "b")); done.Jobs != 2 || !strings.Contains(done.Says.String(), "deleted: 2 jobs. Backups") {
			t.Errorf("%+v", done)
		}
	}
	for _, path := range []string{"/api/jobs/lock-gate-recorder", "/api/jobs/lock-gate-recorder/file", "/api/owner?name=Lock%20keeper"} {
		if a := ask(t, h, "GET", path, ""); a.Code != 404 {
			t.Errorf("%s: %d", path, a.Code)
		}
	}
	for _, c := range bench(t, h, "") {
		if c.Owner == "Lock keeper" {
			t.Errorf("%s is on the bench", c.ID)
		}
	}
	if a := ask(t, h, "GET", "/api/gone", ""); strings.Contains(a.Body.String(), "ecorder") || strings.Count(a.Body.String(), "a job of 3 revisions was deleted, with all there was of it") != 2 {
		t.Errorf("%s", a.Body)
	}
	if a := ask(t, h, "POST", "/api/files", string(alone)); a.Code != 201 {
		t.Errorf("the job in the archive cannot be brought in: %d %s", a.Code, a.Body)
	}
}
