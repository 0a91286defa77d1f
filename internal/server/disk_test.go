package server_test

import (
	"errors"
	"fmt"
	"net/http"
	"strings"
	"testing"

	"deepbay/internal/store"
)

// What the disk does to a change is said as what it is, and that nothing was changed; a
// server that is busy says when to come again. What is there can be read on.
func TestDiskTroubleIsSaid(t *testing.T) {
	const path = tower
	const not = "nothing was changed"
	for _, c := range []struct {
		with   error
		status int
		retry  string
		says   string
		ends   string
	}{
		{store.ErrBusy, http.StatusServiceUnavailable, "1", "send it again", not},
		{fmt.Errorf("job: %w: %w", store.ErrFull, errors.New("13")), http.StatusInsufficientStorage, "", "make room", not},
		{store.ErrReadOnly, http.StatusInsufficientStorage, "", "permissions", not},
		{store.ErrDisk, http.StatusInsufficientStorage, "", "when it is mended", "nothing is done twice"}, // whether it was, nobody knows
	} {
		h := serving(t, unwritable{Data: filled(t), with: c.with})
		a := ask(t, h, "POST", path+"/changes", change(1, `{"do": "set", "setting": "memory-profile", "value": "on"}`))
		if a.Code != c.status || a.Header().Get("Retry-After") != c.retry || !strings.Contains(a.Body.String(), c.says) || !strings.Contains(a.Body.String(), c.ends) {
			t.Errorf("%v: %d %v %s", c.with, a.Code, a.Header(), a.Body)
		}
		if a := ask(t, h, "GET", path, ""); a.Code != http.StatusOK || !strings.Contains(a.Body.String(), `"revision":1`) {
			t.Errorf("%v: then %d", c.with, a.Code)
		}
	}
}

// Health tells of the data file and its disk, and when there is little room left.
func TestHealthTellsOfRoom(t *testing.T) {
	for free, low := range map[int64]bool{0: true, 100 << 20: true, 100 << 30: false} {
		a := ask(t, serving(t, unwritable{Data: filled(t), free: free}), "GET", "/api/health", "")
		if !strings.Contains(a.Body.String(), fmt.Sprintf(`"low":%v`, low)) || !strings.Contains(a.Body.String(), `"waiting":0`) || strings.Contains(a.Body.String(), "unknown") || strings.Contains(a.Body.String(), `"status":"ok"`) == low {
			t.Errorf("%d bytes free: %s", free, a.Body.String())
		}
	}
}

// The counts are in the text format that is asked for, and name routes, not what people ask for.
func TestMetrics(t *testing.T) {
	h := shop(t)
	ask(t, h, "GET", "/api/jobs/echo-sounding-tower", "")
	ask(t, h, "GET", "/api/jobs/nobody", "")
	ask(t, h, "GET", "/api/nothing/of/the/kind", "")
	a := ask(t, h, "GET", "/metrics", "")
	for _, want := range []string{
		`deepbay_request_seconds_count{method="GET",route="/api/jobs/:id",status="200"} 1`,
		`deepbay_request_seconds_count{method="GET",route="/api/jobs/:id",status="404"} 1`,
		`deepbay_request_seconds_count{method="GET",route="files",status="404"} 1`,
		"deepbay_writes_waiting 0", "deepbay_data_bytes ", "deepbay_data_free_bytes ", "deepbay_backup_age_seconds -1", "deepbay_records_damaged 0", "go_goroutines ",
	} {
		if !strings.Contains(a.Body.String(), want) {
			t.Errorf("no %s", want)
		}
	}
	if strings.Contains(a.Body.String(), "echo-sounding") {
		t.Error("it names a job")
	}
}
