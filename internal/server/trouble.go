package server

// This file is what follows the first start: what is wrong, what a machine tells about itself, and
// the door through which a machine on the bench sends that in.

import (
	"context"
	"crypto/rand"
	"encoding/json"
	"errors"
	"io"
	"net/http"
	"os"
	"strings"
	"sync"
	"time"

	"github.com/gin-gonic/gin"

	"deepbay/internal/core/draft"
	"deepbay/internal/core/fact"
	"deepbay/internal/core/job"
	"deepbay/internal/core/power"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/say"
	"deepbay/internal/format"
	"deepbay/internal/probe"
	"deepbay/internal/store"
)

// TroubleView is what is wrong with the machine of a job, and what was done about it.
type TroubleView struct {
	Trouble say.Trouble     `json:"trouble"`
	Checked []say.CheckMade `json:"checked"`
	Cures   []say.CureBegun `json:"cures"`
	Strange []say.Text      `json:"strange"` // what the machine told of last and nobody expected
	Keys    say.Keys        `json:"keys"`    // into set-up and the boot menu
}

// trouble looks for what is wrong with the machine of a job.
func (s *api) trouble(c *gin.Context) error {
	k, err := s.named(c)
	if err != nil {
		return err
	}
	d, v := k.Job.Diagnosis(), say.About(s.Language, &k.Job)
	c.JSON(http.StatusOK, TroubleView{v.Trouble(&d), v.ChecksMade(&k.Job), v.CuresBegun(&k.Job), v.Strange(k.Job.Strange), v.Keys()})
	return nil
}

// readObservation reads what a machine told, in Deep Bay's own format or as a Windows machine's
// classes give it, and answers with the observation. Nothing is kept.
func (s *api) readObservation(c *gin.Context) error {
	o, err := told(c)
	if err != nil {
		return err
	}
	c.JSON(http.StatusOK, o)
	return nil
}

// draftSheet drafts a sheet from what a machine told. Nothing is kept.
func (s *api) draftSheet(c *gin.Context) error {
	o, err := told(c)
	if err != nil {
		return err
	}
	if o.Machine == nil {
		return problem.List{{Pointer: "/machine", Says: "it does not say what the machine told about itself", Cure: "send what deepbay probe writes"}}
	}
	d, err := draft.Of(o.Machine)
	if err != nil {
		return problem.List{{Pointer: "/machine", Fact: fact.From(err)}}
	}
	c.JSON(http.StatusOK, say.Draft(s.Language, &d))
	return nil
}

// told is what a machine told, as the body of a request.
func told(c *gin.Context) (power.Observation, error) {
	b, err := fileBody(c)
	if err != nil {
		return power.Observation{}, err
	}
	return observation(b)
}

func observation(b []byte) (power.Observation, error) {
	if !probe.IsWindows(b) {
		return format.Observation(b)
	}
	o, err := probe.Windows(b)
	if err == nil { // held to the same bounds as any file
		if b, err = json.Marshal(o); err == nil {
			return format.Observation(b)
		}
	}
	return o, problem.List{{Pointer: "", Says: err.Error(), Cure: "run the line that is shown here once more, and send what it prints whole"}}
}

// Doors let machines on the bench send in what they tell about themselves, each once: through an
// address of their own, for the application answers to this machine alone.
type Doors struct {
	Base string // as a machine on the bench reaches it: http://192.0.2.7:8481

	mu   sync.Mutex
	open map[string]door
	give func(context.Context, job.ID, power.Observation) error
}

// door is an invitation.
type door struct {
	job   job.ID
	until time.Time
}

// doorOpen is how long a machine has to send itself in.
const doorOpen = time.Hour

// mostDoors is how many invitations are open at once.
const mostDoors = 100

// invite makes a token for a job.
func (d *Doors) invite(id job.ID, now time.Time) (string, bool) {
	d.mu.Lock()
	defer d.mu.Unlock()
	if d.open == nil {
		d.open = map[string]door{}
	}
	for t, x := range d.open {
		if now.After(x.until) {
			delete(d.open, t)
		}
	}
	if len(d.open) >= mostDoors {
		return "", false
	}
	token := rand.Text()
	d.open[token] = door{id, now.Add(doorOpen)}
	return token, true
}

// enter finds what a token is for; used says that it is used up.
func (d *Doors) enter(token string, now time.Time, used bool) (door, bool) {
	d.mu.Lock()
	defer d.mu.Unlock()
	x, ok := d.open[token]
	if ok = ok && now.Before(x.until); ok && used {
		delete(d.open, token)
	}
	return x, ok
}

// Handler answers machines on the bench: GET /TOKEN/deepbay is this very program, POST /TOKEN takes
// an observation. Whatever else is asked is not there.
func (d *Doors) Handler(now func() time.Time) http.Handler {
	mux := http.NewServeMux()
	mux.HandleFunc("GET /{token}/deepbay", func(w http.ResponseWriter, r *http.Request) {
		if _, ok := d.enter(r.PathValue("token"), now(), false); !ok {
			http.NotFound(w, r)
			return
		}
		own, err := os.Executable()
		if err != nil {
			http.Error(w, "the program cannot be read", http.StatusInternalServerError)
			return
		}
		w.Header().Set("Content-Type", "application/octet-stream")
		http.ServeFile(w, r, own)
	})
	mux.HandleFunc("POST /{token}", func(w http.ResponseWriter, r *http.Request) {
		x, ok := d.enter(r.PathValue("token"), now(), false)
		if !ok {
			http.NotFound(w, r)
			return
		}
		b, err := io.ReadAll(http.MaxBytesReader(w, r.Body, maxFile))
		if err != nil {
			http.Error(w, err.Error(), http.StatusRequestEntityTooLarge)
			return
		}
		o, err := observation(b)
		if err == nil {
			if _, ok := d.enter(r.PathValue("token"), now(), true); !ok { // another was faster
				http.NotFound(w, r)
				return
			}
			err = d.give(r.Context(), x.job, o)
		}
		if err != nil {
			http.Error(w, err.Error(), http.StatusUnprocessableEntity)
			return
		}
		w.WriteHeader(http.StatusNoContent)
	})
	return mux
}

// Invitation is how a machine on the bench sends itself in.
type Invitation struct {
	Linux   []string `json:"linux"`   // lines to type; none where machines are not listened to
	Windows string   `json:"windows"` // the line that makes a Windows machine tell; what it prints is dropped on the job
	Says    say.Text `json:"says"`
}

// invite opens a door for the machine of a job.
func (s *api) invite(c *gin.Context) error {
	k, err := s.named(c)
	if err != nil {
		return err
	}
	out := Invitation{Linux: []string{}, Windows: probe.Ask}
	v := say.About(s.Language, &k.Job)
	if s.Doors == nil {
		out.Says = v.NoDoor()
		c.JSON(http.StatusOK, out)
		return nil
	}
	token, ok := s.Doors.invite(k.Job.ID, s.Now())
	if !ok {
		return problem.List{{Pointer: "", Says: "too many machines are invited already", Cure: "wait until one has sent itself in, or an hour"}}
	}
	at := strings.TrimSuffix(s.Doors.Base, "/") + "/" + token
	out.Linux = []string{"curl -fsSo /tmp/deepbay " + at + "/deepbay", "chmod +x /tmp/deepbay", "sudo /tmp/deepbay probe --send " + at}
	out.Says = v.Door()
	c.JSON(http.StatusOK, out)
	return nil
}

// given keeps what a machine sent in: in its job, at whatever revision that is.
func (s *api) given(ctx context.Context, id job.ID, o power.Observation) error {
	var stale *store.Conflict
	for range 5 {
		k, err := s.Data.Job(ctx, id)
		if err != nil {
			return err
		}
		stamp := s.stamp("probe")
		next, done, err := job.Apply(k.Job, job.Change{Do: job.DoObserve, Observation: &o}, stamp)
		if err != nil {
			return say.About(s.Language, &k.Job).Err(err)
		}
		_, err = s.hold(ctx, &k.Job, store.Write{Job: next, From: k.Revision, Done: done, Stamp: stamp})
		if stale = nil; !errors.As(err, &stale) { // somebody was faster: once more
			return err
		}
	}
	return stale
}
