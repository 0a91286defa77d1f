package server_test

import (
	"bufio"
	"context"
	"io"
	"log/slog"
	"net"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"deepbay/internal/server"
)

// What is changed is heard by everybody who listens, with who did it, for longer than another
// answer may take; and the server ends without waiting for them.
func TestLive(t *testing.T) {
	h := shop(t)
	ctx, stop := context.WithCancel(context.Background())
	defer stop()
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		t.Fatal(err)
	}
	ended := make(chan error, 1)
	go func() { ended <- server.Serve(ctx, l, h, slog.New(slog.NewTextHandler(io.Discard, nil))) }()
	base := "http://" + l.Addr().String()
	var ears []*bufio.Scanner
	for range 3 {
		res, err := http.Get(base + "/api/live")
		if err != nil {
			t.Fatal(err)
		}
		defer res.Body.Close()
		if res.StatusCode != 200 || res.Header.Get("Content-Type") != "text/event-stream" {
			t.Fatalf("%s %s", res.Status, res.Header)
		}
		ears = append(ears, bufio.NewScanner(res.Body))
		ears[len(ears)-1].Scan() // retry: it listens
	}
	change := `{"revision":1,"by":"Oda Finch","key":"live-1","change":{"do":"place","item":"item-4","socket":"M2_1"}}`
	res, err := http.Post(base+"/api/jobs/echo-sounding-tower/changes", "application/json", strings.NewReader(change))
	if err != nil || res.StatusCode != 200 {
		t.Fatalf("%v %v", res, err)
	}
	res.Body.Close()
	for i, ear := range ears {
		for ear.Scan() && !strings.HasPrefix(ear.Text(), "data: ") {
		}
		if got := ear.Text(); got != `data: {"job":"echo-sounding-tower","revision":2,"by":"Oda Finch","says":"put Ternlight 500 into M2_1"}` {
			t.Errorf("listener %d hears %s", i, got)
		}
	}
	began := time.Now()
	stop()
	if err := <-ended; err != nil || time.Since(began) > 8*time.Second {
		t.Errorf("stopped after %s: %v", time.Since(began), err)
	}
	for i, ear := range ears {
		for ear.Scan() {
		}
		if ear.Err() != nil {
			t.Errorf("listener %d: %v", i, ear.Err())
		}
	}

	// What nobody changed, nobody hears; one who leaves is forgotten.
	gone, leave := context.WithCancel(context.Background())
	done := make(chan struct{})
	go func() {
		h.ServeHTTP(httptest.NewRecorder(), httptest.NewRequestWithContext(gone, "GET", "http://127.0.0.1/api/live", nil))
		close(done)
	}()
	leave()
	<-done
}
