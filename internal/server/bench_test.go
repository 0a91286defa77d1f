package server_test

import (
	"database/sql"
	"encoding/json"
	"fmt"
	"net/http"
	"net/http/httptest"
	"net/url"
	"path/filepath"
	"strings"
	"testing"

	"github.com/gin-gonic/gin"

	shopdemo "deepbay/demo/shop"
	"deepbay/internal/server"
	"deepbay/internal/store"
)

// serve sends one request and fails the benchmark when it is not answered.
func serve(b *testing.B, h http.Handler, method, path, body string) *httptest.ResponseRecorder {
	r := httptest.NewRequest(method, path, strings.NewReader(body))
	r.Host = "127.0.0.1:8480"
	w := httptest.NewRecorder()
	h.ServeHTTP(w, r)
	if w.Code != http.StatusOK {
		b.Fatalf("%s %s: %d %s", method, path, w.Code, w.Body)
	}
	return w
}

// BenchmarkHTTP sets a job read and a job write beside a bare Gin handler that
// returns the same bytes, so that what Deep Bay itself costs can be read off.
// A write includes the change, two resolves, the answer, and the commit to disk.
func BenchmarkHTTP(b *testing.B) {
	h := shop(b)
	bytes := serve(b, h, "GET", tower, "").Body.Bytes()
	b.Run("bare", func(b *testing.B) {
		r := gin.New()
		r.GET("/api/jobs/:id", func(c *gin.Context) { c.Data(http.StatusOK, "application/json", bytes) })
		for b.Loop() {
			serve(b, r, "GET", tower, "")
		}
		b.ReportMetric(float64(len(bytes)), "bytes")
	})
	b.Run("read", func(b *testing.B) {
		for b.Loop() {
			serve(b, h, "GET", tower, "")
		}
	})
	b.Run("write", func(b *testing.B) {
		revision := 1
		sockets := [...]string{"SATA1", "SATA2"}
		for b.Loop() {
			serve(b, h, "POST", tower+"/changes", change(revision, fmt.Sprintf(`{"do":"place","item":"item-3","socket":%q}`, sockets[revision%2])))
			revision++
		}
	})
	b.Run("bench-list", func(b *testing.B) {
		for b.Loop() {
			serve(b, h, "GET", "/api/jobs", "")
		}
	})
}

// BenchmarkShopOf100000 asks a shop of a hundred thousand jobs what people ask, beside the
// same in the demo shop of nine: the bench and a later page of it, searches for what one
// job, a third of them and all of them carry, for two letters, and for three common words
// at once; the shelf; a change of a job; and the bench as the program first answers it.
func BenchmarkShopOf100000(b *testing.B) {
	large := many(b, 100_000)
	h, small := serving(b, large), shop(b)
	var page server.JobList
	if err := json.Unmarshal(serve(b, h, "GET", "/api/jobs", "").Body.Bytes(), &page); err != nil {
		b.Fatal(err)
	}
	var lines server.LogbookPage
	if err := json.Unmarshal(serve(b, h, "GET", "/api/logbook", "").Body.Bytes(), &lines); err != nil || len(lines.Lines) != 50 {
		b.Fatal(len(lines.Lines), err)
	}
	for _, c := range []struct{ name, path string }{
		{"bench", "/api/jobs"},
		{"second-page", "/api/jobs?after=" + url.QueryEscape(page.Next)},
		{"last-page", "/api/jobs?after=" + url.QueryEscape("0 2026-01-01T00:00:01Z tower")},
		{"search-one", "/api/jobs?q=sn-077123"},
		{"search-a-third", "/api/jobs?q=ternlight"},
		{"search-all", "/api/jobs?q=tower"},
		{"search-two-letters", "/api/jobs?q=zq"},
		{"search-three-words", "/api/jobs?q=tower+ternlight+0771"},
		{"search-nothing", "/api/jobs?q=no+such+thing"},
		{"shelf", "/api/shelf"},
		{"logbook", "/api/logbook"},
		{"logbook-second-page", "/api/logbook?after=" + lines.Next},
		{"logbook-one", "/api/logbook?q=sn077123"},
		{"logbook-all", "/api/logbook?q=done"},
		{"logbook-beginnings", "/api/logbook?q=t+sk+sa"},
		{"logbook-two-words", "/api/logbook?q=skerry+sata3"},
		{"logbook-nothing", "/api/logbook?q=no+such+thing"},
		{"logbook-hand", "/api/logbook?who=Runa+Marsh"},
		{"logbook-model-and-days", "/api/logbook?model=harrier-t4&kind=job&from=2019-01-01&to=2019-02-01&q=done"},
		{"life-of-machine", "/api/life?job=tower-050000"},
		{"life-of-part", "/api/life?serial=SL4-220871-9"},
		{"figures-of-a-year", "/api/figures"},
		{"figures-of-ten", "/api/figures?months=120"},
		{"model", "/api/models/harrier-t4"},
	} {
		b.Run(c.name, func(b *testing.B) {
			for b.Loop() {
				serve(b, h, "GET", c.path, "")
			}
		})
	}
	b.Run("bench-of-nine", func(b *testing.B) {
		for b.Loop() {
			serve(b, small, "GET", "/api/jobs", "")
		}
	})
	b.Run("write", func(b *testing.B) {
		revision := 1
		for b.Loop() {
			serve(b, h, "POST", "/api/jobs/tower-050000/changes", change(revision, fmt.Sprintf(`{"do":"place","item":"item-3","socket":"SATA%d"}`, 1+revision%2)))
			revision++
		}
	})
	b.Run("after-a-start", func(b *testing.B) {
		for b.Loop() {
			serve(b, serving(b, large), "GET", "/api/jobs", "")
		}
	})
}

// many is the demo shop with so many jobs more, each with a serial of its own, a third of
// them with a drive of another name; most are closed.
func many(b *testing.B, n int) *store.Store {
	path := filepath.Join(b.TempDir(), "shop.db")
	s, err := store.Open(b.Context(), path)
	if err == nil {
		err = shopdemo.Fill(b.Context(), s)
	}
	if err == nil {
		err = s.Close()
	}
	if err != nil {
		b.Fatal(err)
	}
	db, err := sql.Open("sqlite", path)
	if err != nil {
		b.Fatal(err)
	}
	for _, q := range []string{
		fmt.Sprintf(`WITH RECURSIVE n (i) AS (SELECT 0 UNION ALL SELECT i + 1 FROM n WHERE i < %d)
			INSERT INTO jobs (id, revision, open, updated, doc) SELECT printf('tower-%%06d', i), 1, i %% 500 = 0,
				strftime('%%Y-%%m-%%dT%%H:%%M:%%SZ', 1767225600 + i, 'unixepoch'), json_set(doc, '$.id', printf('tower-%%06d', i), '$.title', 'Tower ' || i, '$.tag', printf('T-%%06d', i), '$.items[0].serial', 'SL4-220871-' || (i %% 20000)) FROM n, jobs WHERE id = 'echo-sounding-tower'`, n-1),
		`INSERT INTO journal (job, revision, at, by, says, doc) SELECT id, 1, updated, 'bench', 'came', doc FROM jobs WHERE id LIKE 'tower-%'`,
		// Four lines of each job over eight years, in revisions that nothing else asks for, and a dozen figures of each.
		`INSERT INTO journal (job, revision, at, by, says, doc) SELECT jobs.id, -k.value, strftime('%Y-%m-%dT%H:%M:%SZ', 1500000000 + 2600 * substr(jobs.id, 7) + 600 * k.value, 'unixepoch'),
			CASE (substr(jobs.id, 7) + k.value) % 5 WHEN 0 THEN 'Runa Marsh' ELSE 'Oda Finch' END, 'done: take Skerry 480, serial SN' || substr(jobs.id, 7) || ', out of SATA' || k.value, '{}'
			FROM jobs, json_each('[0,1,2,3]') k WHERE jobs.id LIKE 'tower-%'`,
		`DELETE FROM unlogged WHERE thing LIKE 'tower-%'`,
		`INSERT INTO logged (number, kind, thing, revision, who, tag, words) SELECT unixepoch(at) * 65536000 + revision + 9, 'job', job, revision, replace(upper(by), ' ', ''), 'KINDJOB THING' || replace(upper(job), '-', '') || ' MODELHARRIERT4',
			'DONE TAKE SKERRY 480 SERIAL SN' || substr(job, 7) || ' OUT OF SATA' || (-revision) || ' TOWER ' || (substr(job, 7) + 0) || ' T' || substr(job, 7) FROM journal WHERE job LIKE 'tower-%' ORDER BY 1`,
		`WITH RECURSIVE n (i) AS (SELECT 0 UNION ALL SELECT i + 1 FROM n WHERE i < 99999)
			INSERT OR IGNORE INTO logwords (word) SELECT printf('SN%06d', i) FROM n UNION ALL SELECT printf('T%06d', i) FROM n UNION ALL SELECT i FROM n UNION ALL SELECT value FROM json_each('["DONE","TAKE","SKERRY","480","SERIAL","OUT","OF","SATA0","SATA1","SATA2","SATA3","TOWER"]')`,
		`INSERT INTO figures (job, month, of, name, n, took, expected) SELECT jobs.id, strftime('%Y-%m', 1500000000 + 2600 * substr(jobs.id, 7), 'unixepoch'), CASE k.value % 3 WHEN 0 THEN 'phase' WHEN 1 THEN 'fault' ELSE 'put' END, 'name ' || ((substr(jobs.id, 7) + k.value) % 40), 1, 60000, 60000
			FROM jobs, json_each('[0,1,2,3,4,5,6,7,8,9,10,11]') k WHERE jobs.id LIKE 'tower-%'`,
		`INSERT INTO marked (job, stage, marks) SELECT j.id, CASE open WHEN 1 THEN 'OPEN' ELSE 'CLOSED' END,
			replace(CASE WHEN j.rowid % 3 THEN replace(marks, 'TERNLIGHT', 'SHELDUCK') ELSE marks END, 'HS0417', 'T' || substr(j.id, 7)) || char(10) || 'SN' || substr(j.id, 7) || char(10) || 'SL4220871' || (substr(j.id, 7) % 20000)
			FROM jobs j, marked m WHERE j.id LIKE 'tower-%' AND m.job = 'echo-sounding-tower' ORDER BY j.id`,
		`INSERT INTO uses (part, number) SELECT u.part, m.number FROM uses u, marked m WHERE u.number = (SELECT number FROM marked WHERE job = 'echo-sounding-tower') AND m.job LIKE 'tower-%'`,
	} {
		if _, err := db.ExecContext(b.Context(), q); err != nil {
			b.Fatalf("%s: %v", q, err)
		}
	}
	db.Close()
	if s, err = store.Open(b.Context(), path); err != nil { // which gives them digests
		b.Fatal(err)
	}
	b.Cleanup(func() { s.Close() })
	return s
}
