package server_test

import (
	"fmt"
	"net/http"
	"net/http/httptest"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/gin-gonic/gin"

	"deepbay/demo"
	"deepbay/internal/core/fact"
	"deepbay/internal/core/job"
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
	b.Run("list-of-10000", func(b *testing.B) {
		h := serving(b, many(b, 10_000))
		serve(b, h, "GET", "/api/jobs", "") // each job is judged once
		for b.Loop() {
			serve(b, h, "GET", "/api/jobs", "")
		}
	})
	b.Run("list-of-10000-after-a-start", func(b *testing.B) {
		s := many(b, 10_000)
		serve(b, serving(b, s), "GET", "/api/jobs", "") // each job is judged once, and kept
		for b.Loop() {
			serve(b, serving(b, s), "GET", "/api/jobs", "")
		}
	})
	b.Run("bench-list", func(b *testing.B) {
		for b.Loop() {
			serve(b, h, "GET", "/api/jobs", "")
		}
	})
}

// many is a shop with so many jobs.
func many(b *testing.B, n int) *store.Store {
	s, err := store.Open(b.Context(), filepath.Join(b.TempDir(), "shop.db"))
	if err != nil {
		b.Fatal(err)
	}
	b.Cleanup(func() { s.Close() })
	j, err := demo.Job("echo-sounding-tower")
	if err != nil {
		b.Fatal(err)
	}
	for i := range n {
		j.ID = job.ID(fmt.Sprintf("tower-%05d", i))
		if _, err := s.Put(b.Context(), store.Write{Job: j, Done: fact.Of(job.TookIn), Stamp: job.Stamp{By: "bench", At: now.Add(time.Duration(i) * time.Second)}}); err != nil {
			b.Fatal(err)
		}
	}
	return s
}
