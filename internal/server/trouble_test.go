package server_test

import (
	"bytes"
	"encoding/json"
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"deepbay/internal/core/power"
	"deepbay/internal/server"
)

// TestDoors lets a machine on the bench send itself in: once, through its own address, within the
// hour; what it tells is in the journal, and the program it fetches is this one.
func TestDoors(t *testing.T) {
	clock := now
	doors := &server.Doors{Base: "http://192.0.2.7:8481"}
	h, err := server.New(server.Options{Data: filled(t), Version: "test", Now: func() time.Time { return clock }, Doors: doors, Log: slog.New(slog.NewTextHandler(io.Discard, nil)), Files: appFiles})
	if err != nil {
		t.Fatal(err)
	}
	bench := doors.Handler(func() time.Time { return clock })
	invite := func() string {
		t.Helper()
		var in server.Invitation
		if err := json.Unmarshal(ask(t, h, "POST", "/api/jobs/echo-sounding-tower/invite", "").Body.Bytes(), &in); err != nil || len(in.Linux) != 3 {
			t.Fatalf("%+v, %v", in, err)
		}
		_, token, _ := strings.Cut(in.Linux[2], doors.Base+"/")
		return token
	}
	send := func(method, path string, body []byte) *httptest.ResponseRecorder {
		w := httptest.NewRecorder()
		bench.ServeHTTP(w, httptest.NewRequestWithContext(t.Context(), method, path, bytes.NewReader(body)))
		return w
	}
	var sim server.SimView
	ask(t, h, "POST", "/api/jobs/echo-sounding-tower/sim", `{"do":"make"}`)
	if err := json.Unmarshal(ask(t, h, "POST", "/api/jobs/echo-sounding-tower/sim", `{"do":"start"}`).Body.Bytes(), &sim); err != nil || sim.Probe == nil {
		t.Fatalf("%+v, %v", sim, err)
	}
	told, err := json.Marshal(sim.Probe)
	if err != nil {
		t.Fatal(err)
	}
	token := invite()
	if w := send("GET", "/"+token+"/deepbay", nil); w.Code != http.StatusOK || !bytes.HasPrefix(w.Body.Bytes(), []byte("\x7fELF")) {
		t.Errorf("the program: %d, %d bytes", w.Code, w.Body.Len())
	}
	if w := send("POST", "/"+token, []byte(`{"format":"deepbay/observation","version":1,"readings":[],"surprise":1}`)); w.Code != http.StatusUnprocessableEntity || !strings.Contains(w.Body.String(), "surprise") {
		t.Errorf("nonsense: %d %s", w.Code, w.Body)
	}
	if w := send("POST", "/"+token, told); w.Code != http.StatusNoContent {
		t.Fatalf("%d %s", w.Code, w.Body)
	}
	v := ask(t, h, "GET", "/api/jobs/echo-sounding-tower", "").view()
	if last := v.Journal[len(v.Journal)-1]; last.By != "probe" || !strings.HasPrefix(last.Says.String(), "Read what the machine tells: ") {
		t.Errorf("journal: %+v", last)
	}
	for _, l := range v.View.Lines {
		if l.ID.Kind == power.Disk && (l.Verdict != power.Agrees || l.Reading.Origin != power.Simulated) {
			t.Errorf("%s: %s", l.ID, l.Verdict)
		}
	}
	for name, path := range map[string]string{"used": "/" + token, "none": "/guess", "root": "/"} {
		if w := send("POST", path, told); w.Code == http.StatusNoContent {
			t.Errorf("%s: a machine is let in", name)
		}
	}
	late := invite()
	clock = clock.Add(time.Hour)
	if w := send("POST", "/"+late, told); w.Code != http.StatusNotFound {
		t.Errorf("an hour later: %d", w.Code)
	}
	if w := send("GET", "/api/jobs", nil); w.Code == http.StatusOK {
		t.Error("the application answers at the address for machines")
	}
}

// TestSimulatedByAPI finds a hidden fault by what the API says, and what is hidden is told to
// nobody who does not ask.
func TestSimulatedByAPI(t *testing.T) {
	h := shop(t)
	at := "/api/jobs/echo-sounding-tower/sim"
	post := func(body string) (server.SimView, string) {
		t.Helper()
		a := ask(t, h, "POST", at, body)
		var v server.SimView
		if a.Code == http.StatusOK {
			if err := json.Unmarshal(a.Body.Bytes(), &v); err != nil {
				t.Fatal(err)
			}
		}
		return v, a.Body.String()
	}
	if _, says := post(`{"do":"start"}`); !strings.Contains(says, "no simulated machine stands") {
		t.Error(says)
	}
	_, says := post(`{"do":"make","fault":"lead-off@SATA6"}`)
	if strings.Contains(says, "lead-off") {
		t.Errorf("what is hidden is told: %s", says)
	}
	if v, _ := post(`{"do":"start"}`); !v.On || len(v.Screens) < 5 || v.Minutes == 0 {
		t.Errorf("%+v", v)
	}
	if v, _ := post(`{"do":"check","check":"data-lead@SATA6"}`); v.Is != "not-home" || v.On || !v.Open {
		t.Errorf("a look inside: %+v", v)
	}
	if v, _ := post(`{"do":"mend","fault":"plug-off@SATA6"}`); !strings.Contains(v.Says.String(), "changed nothing") {
		t.Error(v.Says)
	}
	if v, _ := post(`{"do":"hands","hands":"lead","socket":"SATA6"}`); v.On {
		t.Errorf("%+v", v)
	}
	if v, _ := post(`{"do":"reveal"}`); len(v.Hidden) != 0 || !strings.Contains(v.Says.String(), "Nothing is wrong") {
		t.Errorf("%+v", v)
	}
	for body, want := range map[string]string{`{"do":"hands","hands":"juggle","socket":"SATA6"}`: "must be one of", `{"do":"check","check":"gaze"}`: "no such check", `{"do":"set","setting":"sata-mode","value":"raid"}`: "is off"} {
		if _, says := post(body); !strings.Contains(says, want) {
			t.Errorf("%s: %s", body, says)
		}
	}
}
