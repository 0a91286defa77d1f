package server

// This file tells browsers what others do, as it happens: server-sent events (HTML living
// standard, 9.2), one a change of a job.

import (
	"context"
	"encoding/json"
	"net/http"
	"sync"
	"time"

	"github.com/gin-gonic/gin"

	"deepbay/internal/core/job"
	"deepbay/internal/core/say"
	"deepbay/internal/store"
)

// Happened is one change of a job, as those who listen hear it.
type Happened struct {
	Job      job.ID   `json:"job"`
	Revision int      `json:"revision"`
	By       say.Name `json:"by,omitempty"`
	Says     say.Text `json:"says"`
}

// mostEars is how many may listen at once; further ones ask again later.
const mostEars = 500

// heartbeat is how often a stream on which nothing happens says that it is there, so that
// whoever is gone is noticed.
const heartbeat = 15 * time.Second

// hub passes on what happens. Whoever is too slow to hear misses it, and sees it when they
// look next.
type hub struct {
	mu   sync.Mutex
	ears map[chan Happened]struct{}
}

func (h *hub) listen() (chan Happened, bool) {
	h.mu.Lock()
	defer h.mu.Unlock()
	if len(h.ears) >= mostEars {
		return nil, false
	}
	if h.ears == nil {
		h.ears = map[chan Happened]struct{}{}
	}
	ear := make(chan Happened, 16)
	h.ears[ear] = struct{}{}
	return ear, true
}

func (h *hub) leave(ear chan Happened) {
	h.mu.Lock()
	defer h.mu.Unlock()
	delete(h.ears, ear)
}

func (h *hub) tell(e Happened) {
	h.mu.Lock()
	defer h.mu.Unlock()
	for ear := range h.ears {
		select {
		case ear <- e:
		default:
		}
	}
}

// stopping is where a request finds the end of the server: streams end then, and others finish.
type stopping struct{}

func untilStopped(ctx context.Context, h http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		h.ServeHTTP(w, r.WithContext(context.WithValue(r.Context(), stopping{}, ctx.Done())))
	})
}

// live streams what happens until the browser or the server leaves.
func (s *api) live(c *gin.Context) error {
	ear, ok := s.hub.listen()
	if !ok {
		return store.ErrBusy
	}
	defer s.hub.leave(ear)
	// It outlasts what other answers may take; a writer that knows no deadlines has none.
	out := http.NewResponseController(c.Writer)
	_ = out.SetReadDeadline(time.Time{})
	c.Header("Content-Type", "text/event-stream")
	c.Header("Cache-Control", "no-store")
	send := func(text string) bool {
		_ = out.SetWriteDeadline(time.Now().Add(heartbeat))
		if _, err := c.Writer.WriteString(text); err != nil {
			return false
		}
		return out.Flush() == nil
	}
	c.Status(http.StatusOK)
	if !send("retry: 1000\n\n") {
		return nil
	}
	end, _ := c.Request.Context().Value(stopping{}).(<-chan struct{})
	beat := time.NewTicker(heartbeat)
	defer beat.Stop()
	for {
		text := ":\n\n"
		select {
		case e := <-ear:
			b, err := json.Marshal(e)
			if err != nil {
				return nil // the stream has begun: it can only end
			}
			text = "data: " + string(b) + "\n\n"
		case <-beat.C:
		case <-end:
			return nil
		case <-c.Request.Context().Done():
			return nil
		}
		if !send(text) {
			return nil
		}
	}
}
