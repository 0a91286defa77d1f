// Package server is the HTTP edge: it decodes, calls the core and the store, and
// encodes. It judges nothing itself.
//
// The API lies under /api; every other path is the application. Errors are
// problem documents (RFC 9457). The server answers on loopback only, and only to
// requests that name it so, for there is no access control yet.
package server

import (
	"bytes"
	"context"
	"crypto/rand"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"log/slog"
	"net"
	"net/http"
	"reflect"
	"runtime/debug"
	"slices"
	"strconv"
	"strings"
	"time"

	"github.com/gin-contrib/gzip"
	"github.com/gin-gonic/gin"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/job"
	"deepbay/internal/core/logbook"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/plan"
	"deepbay/internal/core/practice"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/say"
	"deepbay/internal/core/shelf"
	"deepbay/internal/format"
	"deepbay/internal/store"
)

// Data is what the server asks of a store.
type Data interface {
	Practice(ctx context.Context) (store.KeptPractice, error)
	PutPractice(ctx context.Context, p practice.Practice, from int, by job.Stamp) error
	Closed(ctx context.Context, model machine.ID) ([]job.Job, error)
	Jobs(ctx context.Context, p store.Page) (store.Listed, error)
	Users(ctx context.Context, parts []part.ID, most int) (map[part.ID][]store.Stand, error)
	Stand(ctx context.Context, id job.ID) (store.Stand, error)
	Job(ctx context.Context, id job.ID) (store.Kept, error)
	Put(ctx context.Context, w store.Write) (int, error)
	Raw(ctx context.Context, what, id string) ([]byte, error)
	BringBackSheet(ctx context.Context, id machine.ID, by job.Stamp, r store.Request) error
	BringBackPart(ctx context.Context, id part.ID, by job.Stamp, r store.Request) error
	Applied(ctx context.Context, r store.Request) error
	Journal(ctx context.Context, id job.ID, after int) ([]store.Entry, error)
	At(ctx context.Context, id job.ID, revision int) (job.Job, error)
	Sheets(ctx context.Context) ([]store.SheetName, error)
	Sheet(ctx context.Context, id machine.ID) (store.KeptSheet, error)
	SheetAt(ctx context.Context, id machine.ID, revision int) (store.KeptSheet, error)
	SheetHistory(ctx context.Context, id machine.ID) ([]store.Entry, error)
	Parts(ctx context.Context) ([]part.Part, error)
	PutSheet(ctx context.Context, w store.SheetWrite) (int, error)
	Pictures(ctx context.Context, of store.Album) ([]store.KeptPicture, error)
	Picture(ctx context.Context, of store.Album, id store.PictureID) ([]byte, error)
	KeepPicture(ctx context.Context, w store.PictureWrite) (store.PictureID, error)
	DropPicture(ctx context.Context, of store.Album, id store.PictureID) error
	PutPart(ctx context.Context, p part.Part, by job.Stamp) error
	Shelf(ctx context.Context) ([]store.KeptStock, error)
	OnShelf(ctx context.Context, id part.ID) (store.KeptStock, error)
	ShelfHistory(ctx context.Context, id part.ID) ([]store.Entry, error)
	ChangeStock(ctx context.Context, w store.StockWrite, change func(on store.OnShelf) ([]shelf.Stock, error)) error
	OfOwner(ctx context.Context, owner string) ([]store.Owned, error)
	WriteArchive(ctx context.Context, to io.Writer, about store.Archive, jobs []store.Owned) error
	Remove(ctx context.Context, jobs []store.Owned, why string, by job.Stamp, r store.Request) error
	Gone(ctx context.Context, most int) ([]store.Gone, error)
	Said(ctx context.Context, program string, jobs []job.ID) ([]store.Said, error)
	KeepSaid(ctx context.Context, program string, list []store.Said) error
	CatchUp(ctx context.Context, words store.Words, most int) (int, error)
	Logged(ctx context.Context, q store.LogQuery) (store.LogPage, error)
	Carrying(ctx context.Context, printed string) ([]job.Job, error)
	Figures(ctx context.Context, from, to logbook.Month) ([]logbook.Monthly, error)
	WriteShop(ctx context.Context, to io.Writer) (store.Shop, error)
	BringShop(ctx context.Context, path string) (store.Shop, error)
	Damage() []store.Damaged
	Space() (store.Space, error)
}

// Options is what a server needs.
type Options struct {
	Data     Data
	Files    fs.FS            // the built front end
	Now      func() time.Time // the clock
	Log      *slog.Logger
	Version  string
	Backup   func(now time.Time) *Backup // tells of backups; nil where none are made
	Program  string                      // names exactly this program; what another one said of jobs is not taken over. "" keeps nothing
	Doors    *Doors                      // through which machines on the bench send themselves in; nil where there are none
	Language say.Language                // in which sentences are said; English where it is nil
	Patience time.Duration               // how long a question to the planner may take, waiting included; 0 is 20 s
}

// The largest bodies taken: a change is small, a job file carries its sheet.
const (
	maxChange = 256 << 10
	maxFile   = 4 << 20
)

// New makes the handler of the whole application.
func New(o Options) (http.Handler, error) {
	if o.Language == nil {
		o.Language = say.Plain
	}
	if o.Patience == 0 {
		o.Patience = 20 * time.Second
	}
	app, err := newFiles(o.Files, o.Language)
	if err != nil {
		return nil, err
	}
	gin.SetMode(gin.ReleaseMode)
	r := gin.New()
	r.HandleMethodNotAllowed = true
	s := &api{Options: o, lanes: make(chan struct{}, lanes), changing: make(chan struct{}, store.MostWaiting), turns: make(chan struct{}, turns), looked: newLooked()}
	if o.Doors != nil {
		o.Doors.give = s.given
	}
	r.Use(s.log)
	s.metrics(r)
	r.Use(s.recover)
	r.GET("/api/live", s.do(s.live))          // as it happens: nothing is gathered to be packed
	r.GET("/api/shop/file", s.do(s.shopFile)) // packed already, and as long as a whole shop takes
	r.POST("/api/shop", s.sound, s.do(s.bringShop))
	s.routes(r.Group("/api", s.sound, gzip.Gzip(gzip.BestSpeed)))
	r.NoMethod(func(c *gin.Context) {
		write(c, o.Language, ProblemDoc{Title: "method not allowed", Status: http.StatusMethodNotAllowed, Detail: c.Request.Method + " does nothing here"})
	})
	r.NoRoute(func(c *gin.Context) {
		if strings.HasPrefix(c.Request.URL.Path, "/api/") || c.Request.URL.Path == "/api" {
			write(c, o.Language, ProblemDoc{Title: "not found", Status: http.StatusNotFound, Detail: c.Request.URL.Path + " is no part of the API"})
			return
		}
		app.serve(c)
	})
	// A page of another site may neither send changes here nor reach the server
	// under a name of its own that resolves to loopback.
	elsewhere := http.NewCrossOriginProtection()
	elsewhere.SetDenyHandler(http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) {
		refuse(w, o.Language, ProblemDoc{Title: "from another site", Status: http.StatusForbidden, Detail: "a page of another site may change nothing here"})
	}))
	return headers(app.csp, local(o.Language, elsewhere.Handler(r))), nil
}

// routes is what the API answers.
func (s *api) routes(a *gin.RouterGroup) {
	a.GET("/health", s.do(s.health))
	a.GET("/jobs", s.do(s.jobs))
	a.POST("/jobs", s.do(s.changed(s.create)))
	a.GET("/jobs/:id", s.do(s.job))
	a.GET("/jobs/:id/file", s.do(s.file))
	a.GET("/jobs/:id/offers/:item", s.do(s.offers))
	a.GET("/jobs/:id/written", s.do(s.written))
	a.GET("/sheets/:id/written", s.do(s.writtenOnSheet))
	a.GET("/intake", s.do(s.intake))
	a.POST("/jobs/:id/plan", s.do(s.searched(s.plan)))
	a.POST("/jobs/:id/why-not", s.do(s.searched(s.whyNot)))
	a.POST("/jobs/:id/shop", s.do(s.searched(s.shop)))
	a.GET("/searches/:name", s.do(s.progress))
	a.POST("/jobs/:id/changes", s.do(s.changed(s.change)))
	a.POST("/jobs/:id/undo", s.do(s.changed(s.undo)))
	a.POST("/jobs/:id/back", s.do(s.changed(s.back)))
	a.GET("/jobs/:id/raw", s.do(s.raw))
	a.POST("/jobs/:id/keep", s.do(s.changed(s.keep)))
	a.GET("/jobs/:id/pictures", s.do(s.photographs))
	a.POST("/jobs/:id/pictures", s.do(s.upTo(maxPicture, s.keepPicture)))
	a.GET("/jobs/:id/pictures/:picture", s.do(s.picture))
	a.DELETE("/jobs/:id/pictures/:picture", s.do(s.changed(s.dropPicture)))
	a.GET("/practice", s.do(s.practice))
	a.PUT("/practice", s.do(s.changed(s.putPractice)))
	a.GET("/jobs/:id/bench", s.do(s.benchView))
	a.GET("/jobs/:id/trouble", s.do(s.trouble))
	a.POST("/jobs/:id/invite", s.do(s.invite))
	a.GET("/jobs/:id/sim", s.do(s.sim))
	a.POST("/jobs/:id/sim", s.do(s.simDo))
	a.GET("/jobs/:id/gains", s.do(s.gains))
	a.GET("/jobs/:id/arrays", s.do(s.arrayChoices))
	a.GET("/jobs/:id/volumes", s.do(s.volumes))
	a.POST("/jobs/:id/volumes", s.do(s.divide))
	a.GET("/jobs/:id/transfers", s.do(s.transfers))
	a.POST("/jobs/:id/transfers", s.do(s.moves))
	a.POST("/measurements", s.do(s.readMeasured))
	a.POST("/observations", s.do(s.readObservation))
	a.POST("/drafts", s.do(s.draftSheet))
	a.POST("/jobs/:id/differs", s.do(s.changed(s.keepDifference)))
	a.GET("/jobs/:id/sheet", s.do(s.newerSheet))
	a.POST("/jobs/:id/sheet", s.do(s.changed(s.takeSheet)))
	a.POST("/jobs/:id/again", s.do(s.changed(s.again)))
	a.POST("/jobs/:id/keep-part", s.do(s.changed(s.keepPart)))
	a.POST("/jobs/:id/proven", s.do(s.changed(s.keepProven)))
	a.GET("/sheets", s.do(s.sheets))
	a.GET("/sheets/:id", s.do(s.sheet))
	a.GET("/sheets/:id/file", s.do(s.sheetFile))
	a.PUT("/sheets/:id", s.do(s.changed(s.putSheet)))
	a.POST("/sheets", s.do(s.checkSheet))
	a.POST("/sheets/:id/pictures", s.do(s.upTo(maxPicture, s.keepPicture)))
	a.GET("/sheets/:id/pictures/:picture", s.do(s.picture))
	a.DELETE("/sheets/:id/pictures/:picture", s.do(s.changed(s.dropPicture)))
	a.GET("/layouts", s.do(s.layouts))
	a.GET("/parts", s.do(s.parts))
	a.GET("/shelf", s.do(s.shelf))
	a.POST("/shelf", s.do(s.changed(s.restock)))
	a.GET("/shelf/parts/:part", s.do(s.shelfPart))
	a.GET("/shelf/parts/:part/history", s.do(s.shelfHistory))
	a.POST("/shelf/words", s.do(s.changed(s.quickAdd)))
	a.GET("/shelf/csv", s.do(s.shelfCSV))
	a.POST("/shelf/csv", s.do(s.changed(s.bringCSV)))
	a.GET("/damaged/:what/:id", s.do(s.damagedRaw))
	a.POST("/damaged/:what/:id/back", s.do(s.changed(s.damagedBack)))
	a.GET("/owner", s.do(s.owner))
	a.GET("/owner/file", s.do(s.ownerFile))
	a.POST("/owner/forget", s.do(s.changed(s.forget)))
	a.GET("/gone", s.do(s.gone))
	a.GET("/logbook", s.do(s.logbook))
	a.GET("/logbook/file", s.do(s.logbookFile))
	a.GET("/life", s.do(s.life))
	a.GET("/life/file", s.do(s.lifeFile))
	a.GET("/models/:id", s.do(s.model))
	a.GET("/figures", s.do(s.figures))
	a.GET("/figures/file", s.do(s.figuresFile))
	a.POST("/files", s.do(s.changed(s.bringIn)))
	a.GET("/ask/:question", s.do(s.ask))
	a.POST("/form", s.do(s.form))
}

// refuse answers before Gin is reached.
func refuse(w http.ResponseWriter, in say.Language, p ProblemDoc) {
	body, err := json.Marshal(complete(in, p))
	if err != nil {
		http.Error(w, p.Detail, p.Status)
		return
	}
	w.Header().Set("Content-Type", "application/problem+json")
	w.WriteHeader(p.Status)
	w.Write(body) //nolint:errcheck // the client is gone or not ours
}

// local answers only requests addressed to this machine.
func local(in say.Language, next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		host := r.Host
		if h, _, err := net.SplitHostPort(host); err == nil {
			host = h
		}
		if !isLoopback(host) {
			refuse(w, in, ProblemDoc{Title: "not this server", Status: http.StatusMisdirectedRequest,
				Detail: fmt.Sprintf("this server answers to localhost only, not to %q", host)})
			return
		}
		next.ServeHTTP(w, r)
	})
}

// headers are on every answer, refusals included. What the API says is kept nowhere.
func headers(csp string, next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		h := w.Header()
		h.Set("Content-Security-Policy", csp)
		h.Set("X-Content-Type-Options", "nosniff")
		h.Set("Referrer-Policy", "no-referrer")
		h.Set("Cross-Origin-Opener-Policy", "same-origin")
		h.Set("Permissions-Policy", "camera=(self), microphone=(), geolocation=()")
		if r.URL.Path == "/api" || strings.HasPrefix(r.URL.Path, "/api/") {
			h.Set("Cache-Control", "no-store")
		}
		next.ServeHTTP(w, r)
	})
}

// sound refuses what no handler can make sense of: a body of another type than it is read
// as, an author without end, and any change while the clock is wrong.
func (s *api) sound(c *gin.Context) {
	if c.Request.Method == http.MethodGet || c.Request.Method == http.MethodHead {
		return
	}
	if year := s.Now().Year(); year < 2000 || year > 9999 {
		write(c, s.Language, ProblemDoc{Title: "clock", Status: http.StatusServiceUnavailable,
			Detail: fmt.Sprintf("this machine's clock says the year %d, and every change is kept with its time: set the clock; nothing was changed", year)})
		return
	}
	file := c.FullPath() == "/api/shop" || strings.HasSuffix(c.FullPath(), "/csv") || strings.HasSuffix(c.FullPath(), "/files") || strings.HasSuffix(c.FullPath(), "/pictures") // of whatever type its name made it
	if is := c.ContentType(); !file && is != "" && is != "application/json" {
		write(c, s.Language, ProblemDoc{Title: "another type", Status: http.StatusUnsupportedMediaType,
			Detail: fmt.Sprintf("the body is said to be %q, and application/json is read here; nothing was changed", is)})
		return
	}
	if by := c.Query("by"); len(by) > longestName {
		write(c, s.Language, ProblemDoc{Title: "not usable", Status: http.StatusUnprocessableEntity, Detail: fmt.Sprintf("by: a name has at most %d letters; nothing was changed", longestName)})
	}
}

// longestName is how long the name of an author may be, as the schema says.
const longestName = 80

type api struct {
	Options
	lanes     chan struct{} // one for each question to the planner that is being searched
	changing  chan struct{} // one for each change that is under way
	turns     chan struct{} // one for each that is carried out
	looked    *looked
	questions questions
	hub       hub
	benches   benches
}

func (s *api) log(c *gin.Context) {
	start := time.Now()
	c.Next()
	level := slog.LevelDebug
	if c.Writer.Status() >= http.StatusInternalServerError {
		level = slog.LevelError
	} else if c.Request.Method != http.MethodGet {
		level = slog.LevelInfo
	}
	s.Log.Log(c.Request.Context(), level, "request", "method", c.Request.Method, "path", c.Request.URL.Path,
		"status", c.Writer.Status(), "took", time.Since(start).Round(time.Microsecond), "bytes", c.Writer.Size())
}

func (s *api) recover(c *gin.Context) {
	defer func() {
		if p := recover(); p != nil {
			s.Log.Error("panic", "path", c.Request.URL.Path, "panic", fmt.Sprint(p), "stack", string(debug.Stack()))
			write(c, s.Language, ProblemDoc{Title: "fault in Deep Bay", Status: http.StatusInternalServerError, Detail: "the request was not carried out; the server's log says more"})
		}
	}()
	c.Next()
}

// do turns a function that may fail into a handler; the one place where errors
// become answers.
func (s *api) do(f func(*gin.Context) error) gin.HandlerFunc {
	return func(c *gin.Context) {
		if err := f(c); err != nil {
			write(c, s.Language, s.problem(c, err))
		}
	}
}

func (s *api) problem(c *gin.Context, err error) ProblemDoc {
	var list problem.List
	var large *http.MaxBytesError
	var stale *conflict
	var damaged *store.Damaged
	switch {
	case errors.As(err, &stale):
		return stale.ProblemDoc
	case errors.As(err, &list):
		list = s.Language.Problems(list)
		return ProblemDoc{Title: "not usable", Status: http.StatusUnprocessableEntity, Detail: list[0].String(), Errors: list}
	case errors.As(err, &large):
		return ProblemDoc{Title: "too large", Status: http.StatusRequestEntityTooLarge,
			Detail: fmt.Sprintf("the body is larger than the %d KiB taken here; nothing was changed", large.Limit>>10)}
	case errors.As(err, &damaged):
		return ProblemDoc{Title: "damaged", Status: http.StatusInternalServerError, Detail: damaged.Error()}
	case errors.Is(err, store.ErrNotFound):
		return ProblemDoc{Title: "not found", Status: http.StatusNotFound, Detail: err.Error()}
	case errors.Is(err, store.ErrNewer):
		return ProblemDoc{Title: "newer", Status: http.StatusConflict, Detail: err.Error()}
	case errors.Is(err, store.ErrKeyUsed):
		return ProblemDoc{Title: "key in use", Status: http.StatusUnprocessableEntity, Detail: err.Error() + ": give each request a key of its own; nothing was changed"}
	case errors.Is(err, store.ErrSheetTaken):
		return ProblemDoc{Title: "name in use", Status: http.StatusConflict, Detail: err.Error() + ": give the new one another name"}
	case errors.Is(err, store.ErrTaken):
		return ProblemDoc{Title: "name in use", Status: http.StatusConflict, Detail: err.Error() + ": open it there, or give the file's job another id"}
	case errors.Is(err, store.ErrBusy):
		c.Header("Retry-After", "1")
		return ProblemDoc{Title: "busy", Status: http.StatusServiceUnavailable, Detail: store.ErrBusy.Error() + ": send it again in a second; nothing was changed"}
	case errors.Is(err, store.ErrFull):
		return ProblemDoc{Title: "disk full", Status: http.StatusInsufficientStorage, Detail: store.ErrFull.Error() + ": make room on it; nothing was changed, and what is there can be read"}
	case errors.Is(err, store.ErrReadOnly):
		return ProblemDoc{Title: "read only", Status: http.StatusInsufficientStorage, Detail: store.ErrReadOnly.Error() + ": look at its disk and its permissions; nothing was changed, and what is there can be read"}
	case errors.Is(err, store.ErrDisk):
		s.Log.Error("the disk fails", "path", c.Request.URL.Path, "error", err)
		return ProblemDoc{Title: "disk fails", Status: http.StatusInsufficientStorage, Detail: store.ErrDisk.Error() + ": look at it now, and send the same again when it is mended; nothing is done twice"}
	case errors.Is(err, context.Canceled):
		return ProblemDoc{Title: "given up", Status: 499, Detail: "the request was cancelled"}
	}
	s.Log.Error("request failed", "path", c.Request.URL.Path, "error", err)
	return ProblemDoc{Title: "fault in Deep Bay", Status: http.StatusInternalServerError, Detail: "the request was not carried out; the server's log says more"}
}

// complete fills in the type that follows from the title, and says the rest in a language.
func complete(in say.Language, p ProblemDoc) ProblemDoc {
	p.Type = "urn:deepbay:problem:" + strings.ReplaceAll(p.Title, " ", "-")
	p.Title, p.Detail = in(p.Title), in(p.Detail)
	return p
}

// write answers with a problem. What is said about the core is worded by then.
func write(c *gin.Context, in say.Language, p ProblemDoc) {
	c.Header("Content-Type", "application/problem+json")
	c.AbortWithStatusJSON(p.Status, complete(in, p))
}

// body reads and checks a request against its definition in the api schema.
func body[T any](c *gin.Context, definition string) (T, error) {
	var none T
	b, err := io.ReadAll(http.MaxBytesReader(c.Writer, c.Request.Body, maxChange))
	if err != nil {
		return none, err
	}
	c.Set(asked, b)
	return format.Value[T](definition, b)
}

// asked is where the body of a request is kept while it is answered.
const asked = "asked"

// request names a request by its key, which belongs to this very request and no other.
func request(c *gin.Context, key string) store.Request {
	h := sha256.New()
	fmt.Fprintf(h, "%s %s\n%s", c.Request.Method, c.Request.URL.Path, c.MustGet(asked))
	return store.Request{Key: key, Asked: hex.EncodeToString(h.Sum(nil))}
}

func (s *api) stamp(by string) job.Stamp {
	if by = strings.TrimSpace(by); by == "" {
		by = "someone"
	}
	return job.Stamp{By: by, At: s.Now().UTC().Truncate(time.Second)}
}

// job answers with everything about a job, or about a stage of it that is to come.
func (s *api) job(c *gin.Context) error {
	if c.Query("stage") == "" {
		return s.answer(c, http.StatusOK, job.ID(c.Param("id")))
	}
	ctx := c.Request.Context()
	k, err := s.named(c)
	if err != nil {
		return err
	}
	n, err := stageOf(c)
	if err != nil {
		return err
	}
	v, ok := job.LookAt(k.Job, n)
	if !ok {
		return fmt.Errorf("stage %d: %w", n, store.ErrNotFound)
	}
	entries, err := s.Data.Journal(ctx, k.Job.ID, max(0, k.Revision-journalShown))
	if err != nil {
		return err
	}
	out := s.worded(&k, &v, entries)
	if before := s.before(ctx, &k); before != nil {
		if was, ok := before.Ahead(n); ok {
			out.Changed = say.Differs(s.Language, &was, &v)
		}
	}
	c.JSON(http.StatusOK, out)
	return nil
}

// stageOf is the stage that a request is about: 0 is the one at work.
func stageOf(c *gin.Context) (int, error) {
	q := c.Query("stage")
	if q == "" {
		return 0, nil
	}
	n, err := strconv.Atoi(q)
	if err != nil {
		return 0, fmt.Errorf("stage %q: %w", q, store.ErrNotFound)
	}
	return n, nil
}

// named reads the job that a request names.
func (s *api) named(c *gin.Context) (store.Kept, error) {
	return s.Data.Job(c.Request.Context(), job.ID(c.Param("id")))
}

// asked reads the job that a request is about, as the stage stands that it names.
func (s *api) asked(c *gin.Context) (store.Kept, error) {
	k, err := s.named(c)
	if err != nil {
		return k, err
	}
	n, err := stageOf(c)
	if err != nil {
		return k, err
	}
	ahead, ok := k.Job.Ahead(n)
	if !ok {
		return k, fmt.Errorf("stage %d: %w", n, store.ErrNotFound)
	}
	k.Job = ahead
	return k, nil
}

func (s *api) file(c *gin.Context) error {
	k, err := s.named(c)
	if err != nil {
		return err
	}
	return s.download(c, string(k.Job.ID)+".job.json", k.Job)
}

func (s *api) offers(c *gin.Context) error {
	k, err := s.asked(c)
	if err != nil {
		return err
	}
	item := rig.ItemID(c.Param("item"))
	if k.Job.Item(item) == nil {
		return fmt.Errorf("item %q: %w", item, store.ErrNotFound)
	}
	b := k.Job.PlannedRig()
	if c.Query("in") == string(job.InFound) {
		b = k.Job.FoundRig()
	}
	c.JSON(http.StatusOK, say.In(s.Language, &b).Offers(fit.Offers(&b, item)))
	return nil
}

// jobAndShelf reads what a question to the planner is about.
func (s *api) jobAndShelf(c *gin.Context) (store.Kept, []shelf.Stock, error) {
	k, err := s.asked(c)
	if err != nil {
		return k, nil, err
	}
	kept, err := s.Data.Shelf(c.Request.Context())
	return k, bare(kept), err
}

// plan finds the best plan for a job. A client that goes away stops the search.
func (s *api) plan(c *gin.Context) error {
	q, err := body[job.PlanQuestion](c, "PlanQuestion")
	if err != nil {
		return err
	}
	k, stock, err := s.jobAndShelf(c)
	if err != nil {
		return err
	}
	q.Shelf = stock
	advice, err := k.Job.AskPlan(c.Request.Context(), q)
	if err == nil {
		c.JSON(http.StatusOK, say.About(s.Language, &k.Job).Advice(&advice))
	}
	return err
}

// shop finds the parts of the shelf that meet a need in a job's machine.
func (s *api) shop(c *gin.Context) error {
	need, err := body[plan.Need](c, "Need")
	if err != nil {
		return err
	}
	k, stock, err := s.jobAndShelf(c)
	if err != nil {
		return err
	}
	found, err := k.Job.Shop(c.Request.Context(), need, stock)
	if err == nil {
		c.JSON(http.StatusOK, say.About(s.Language, &k.Job).Shopping(&found))
	}
	return err
}

// whyNot says why a piece is not in a socket in the best plan.
func (s *api) whyNot(c *gin.Context) error {
	q, err := body[WhyNot](c, "WhyNot")
	if err != nil {
		return err
	}
	k, stock, err := s.jobAndShelf(c)
	if err != nil {
		return err
	}
	q.Question.Shelf = stock
	says, err := k.Job.WhyNot(c.Request.Context(), q.Question, q.Item, q.Socket)
	if err == nil {
		c.JSON(http.StatusOK, Because{say.About(s.Language, &k.Job).Fact(says)})
	}
	return err
}

func (s *api) create(c *gin.Context) error {
	in, err := body[NewJob](c, "NewJob")
	if err != nil {
		return err
	}
	stamp := s.stamp(in.By)
	return s.takeIn(c, in.Key, stamp, func() (job.Job, fact.Fact, error) {
		j, err := s.fromSheet(c.Request.Context(), &in, stamp)
		return j, fact.Of(job.TookIn), err
	})
}

// takeIn answers with a job that begins and is kept, once for a request.
func (s *api) takeIn(c *gin.Context, key string, stamp job.Stamp, begin func() (job.Job, fact.Fact, error)) error {
	ctx, r := c.Request.Context(), request(c, key)
	var before *store.Applied
	if err := s.Data.Applied(ctx, r); errors.As(err, &before) {
		return s.answer(c, http.StatusCreated, job.ID(before.Thing))
	} else if err != nil {
		return err
	}
	j, done, err := begin()
	if err != nil {
		return err
	}
	if err := j.Validate().Err(); err != nil {
		return err
	}
	err = s.put(c, http.StatusCreated, nil, store.Write{Job: j, Done: done, Stamp: stamp, Request: r})
	if errors.As(err, &before) { // the same request was faster
		return s.answer(c, http.StatusCreated, job.ID(before.Thing))
	}
	return err
}

// fromSheet is a new job of a machine by the shop's sheet, with what was written down of it.
func (s *api) fromSheet(ctx context.Context, in *NewJob, stamp job.Stamp) (job.Job, error) {
	sheet, err := s.Data.Sheet(ctx, in.Sheet)
	switch {
	case errors.Is(err, store.ErrNotFound):
		return job.Job{}, problem.List{{Pointer: "/sheet", Says: fmt.Sprintf("no sheet is named %q", in.Sheet), Cure: "choose one of the shop's sheets"}}
	case err != nil:
		return job.Job{}, err
	case strings.TrimSpace(in.Title) == "":
		return job.Job{}, problem.List{{Pointer: "/title", Says: "there is nothing but blanks", Cure: "say what the machine is called"}}
	}
	j := job.New(newID(in.Title), strings.TrimSpace(in.Title), sheet.Sheet, in.Wish, stamp.At)
	shop, err := s.Data.Practice(ctx)
	if err != nil {
		return job.Job{}, err
	}
	j.Practice = shop.Practice
	j.Tag, j.Owner, j.Fresh, j.Stands, j.Due = in.Tag, in.Owner, in.Fresh, strings.TrimSpace(in.Stands), in.Due
	if strings.TrimSpace(in.Lines) == "" {
		return j, nil
	}
	j, _, err = job.Apply(j, job.Change{Do: job.DoAdd, In: job.InFound, Text: in.Lines}, stamp)
	if list, ok := err.(problem.List); ok { //nolint:errorlint // Apply's errors are lists
		for i := range list {
			list[i].Pointer = "/lines"
		}
		return j, list
	}
	return j, err
}

func (s *api) answer(c *gin.Context, status int, id job.ID) error {
	body, err := s.view(c.Request.Context(), id)
	if err != nil {
		return err
	}
	c.Data(status, jsonType, body)
	return nil
}

// newID is a readable name that no other job has.
func newID(title string) job.ID {
	var b strings.Builder
	for _, r := range strings.ToLower(title) {
		switch {
		case r >= 'a' && r <= 'z' || r >= '0' && r <= '9':
			b.WriteRune(r)
		case b.Len() > 0 && !strings.HasSuffix(b.String(), "-"):
			b.WriteByte('-')
		}
		if b.Len() >= 40 {
			break
		}
	}
	var tail [3]byte
	rand.Read(tail[:]) // never fails, by its documentation
	name := strings.Trim(b.String(), "-")
	if name == "" {
		name = "job"
	}
	return job.ID(name + "-" + hex.EncodeToString(tail[:]))
}

// conflict is a stale write with both versions in it.
type conflict struct{ ProblemDoc }

func (c *conflict) Error() string { return c.Detail }

func (s *api) conflict(ctx context.Context, id job.ID, yours *job.Change, at, current int) error {
	now, err := s.look(ctx, id)
	if err != nil {
		return err
	}
	missed, err := s.Data.Journal(ctx, id, at)
	if err != nil {
		return err
	}
	return &conflict{ProblemDoc{Title: "changed meanwhile", Status: http.StatusConflict,
		Detail:  fmt.Sprintf("the job is at revision %d, your change was made at %d; it was not applied", current, at),
		Current: &now.JobView, Yours: yours, Would: s.would(&now.View.Job, yours), Missed: s.journal(&now.View.Job, missed)}}
}

// would says what a change does to a job, or why it cannot be done.
func (s *api) would(j *job.Job, c *job.Change) say.Text {
	if c == nil {
		return say.Text{}
	}
	next, done, err := job.Apply(*j, *c, s.stamp(""))
	if err != nil {
		return s.Language.Says(say.About(s.Language, j).Err(err).Error())
	}
	return say.About(s.Language, &next).Event(done, nil)
}

func (s *api) change(c *gin.Context) error {
	in, err := body[ChangeRequest](c, "ChangeRequest")
	if err != nil {
		return err
	}
	stamp := s.stamp(in.By)
	return s.revise(c, in.Revision, in.Key, stamp, &in.Change, func(k store.Kept) (job.Job, fact.Fact, error) {
		next, done, err := job.Apply(k.Job, in.Change, stamp)
		var list problem.List
		if errors.As(err, &list) {
			return next, done, say.About(s.Language, &k.Job).Problems(list.Under("/change"))
		}
		return next, done, err
	})
}

func (s *api) undo(c *gin.Context) error {
	in, err := body[UndoRequest](c, "UndoRequest")
	if err != nil {
		return err
	}
	stamp := s.stamp(in.By)
	return s.revise(c, in.Revision, in.Key, stamp, nil, func(k store.Kept) (job.Job, fact.Fact, error) {
		ctx := c.Request.Context()
		if in.Redo {
			return s.redo(ctx, k, stamp)
		}
		at, last, err := s.effective(ctx, k.Job.ID, k.Revision)
		if err != nil {
			return k.Job, fact.Fact{}, err
		}
		if at < 2 {
			return k.Job, fact.Fact{}, problem.List{{Pointer: "/revision", Says: "all of it is undone: this is how the job began"}}
		}
		undone, names := deed(last)
		if by := last.By; by != stamp.By && !in.Others {
			v := say.About(s.Language, &k.Job)
			return k.Job, fact.Fact{}, &conflict{ProblemDoc{Title: "of another", Status: http.StatusConflict,
				Detail: fmt.Sprintf("the last change is by %s: %s; nothing was changed", by, v.Event(undone, names))}}
		}
		before, err := s.Data.At(ctx, k.Job.ID, at-1)
		return job.Undone(k.Job, before, stamp), fact.Of(job.Undid, undone, at-1, at), err
	})
}

// entry is one line of a job's journal.
func (s *api) entry(ctx context.Context, id job.ID, revision int) (store.Entry, error) {
	list, err := s.Data.Journal(ctx, id, revision-1)
	if err != nil || len(list) == 0 {
		return store.Entry{}, err
	}
	return list[0], nil
}

// revisionIn is a revision that the fact of an undo or redo names, 0 where it names none: before there
// was a way back by steps it did not.
func revisionIn(f fact.Fact, code fact.Code, arg int) int {
	if f.Code != code || len(f.Args) <= arg {
		return 0
	}
	n, _ := f.Args[arg].(int)
	return n
}

// effective is the change that a job stands at: where the last was an undo, the one before what that
// took back, and so on to the beginning.
func (s *api) effective(ctx context.Context, id job.ID, revision int) (int, store.Entry, error) {
	for {
		e, err := s.entry(ctx, id, revision)
		if err != nil || e.Deed == nil {
			return revision, e, err
		}
		back := max(revisionIn(e.Deed.Fact, job.Undid, 1), revisionIn(e.Deed.Fact, job.Redid, 1))
		if back == 0 || back >= revision {
			return revision, e, nil
		}
		revision = back
	}
}

// redo does again what was undone last and not done again since. A change made meanwhile ends that.
func (s *api) redo(ctx context.Context, k store.Kept, stamp job.Stamp) (job.Job, fact.Fact, error) {
	again := 0
	for revision := k.Revision; revision > 1; revision-- {
		e, err := s.entry(ctx, k.Job.ID, revision)
		if err != nil {
			return k.Job, fact.Fact{}, err
		}
		if e.Deed == nil {
			break
		}
		undone := revisionIn(e.Deed.Fact, job.Undid, 2)
		switch {
		case revisionIn(e.Deed.Fact, job.Redid, 1) > 0:
			again++
			continue
		case undone > 0 && again > 0:
			again--
			continue
		case undone > 0:
			was, err := s.entry(ctx, k.Job.ID, undone)
			if err != nil {
				return k.Job, fact.Fact{}, err
			}
			after, err := s.Data.At(ctx, k.Job.ID, undone)
			done, _ := deed(was)
			return job.Undone(k.Job, after, stamp), fact.Of(job.Redid, done, undone), err
		}
		return k.Job, fact.Fact{}, nothingUndone()
	}
	return k.Job, fact.Fact{}, nothingUndone()
}

func nothingUndone() error {
	return problem.List{{Pointer: "/revision", Says: "nothing was undone that could be done again"}}
}

// revise takes a job from the revision the caller saw to the next one.
func (s *api) revise(c *gin.Context, at int, key string, stamp job.Stamp, yours *job.Change, next func(store.Kept) (job.Job, fact.Fact, error)) error {
	ctx, id := c.Request.Context(), job.ID(c.Param("id"))
	r := request(c, key)
	var before *store.Applied
	if err := s.Data.Applied(ctx, r); errors.As(err, &before) {
		return s.answer(c, http.StatusOK, id)
	} else if err != nil {
		return err
	}
	for {
		k, err := s.Data.Job(ctx, id)
		if err != nil {
			return err
		}
		if k.Revision != at {
			beside, err := s.beside(ctx, id, yours, at, &k.Job)
			if err != nil {
				return err
			}
			if !beside {
				return s.conflict(ctx, id, yours, at, k.Revision)
			}
		}
		j, done, err := next(k)
		if err != nil {
			return err
		}
		err = s.put(c, http.StatusOK, &k.Job, store.Write{Job: j, From: k.Revision, Done: done, Stamp: stamp, Request: r})
		if errors.As(err, &before) { // the same request was faster
			return s.answer(c, http.StatusOK, id)
		}
		var stale *store.Conflict
		if !errors.As(err, &stale) {
			return err
		}
		// Somebody was faster between reading and writing: it is looked at anew. Each round is one change
		// of somebody else's, so this ends.
	}
}

// beside reports that a change was made of steps or lines about which nobody has said anything else
// since: two hands that tick different steps at once both succeed.
func (s *api) beside(ctx context.Context, id job.ID, c *job.Change, at int, now *job.Job) (bool, error) {
	if c == nil || c.Stage != 0 || at < 1 {
		return false, nil
	}
	switch c.Do {
	case job.DoTick, job.DoUntick, job.DoLeaveOut, job.DoConfirm, job.DoRead, job.DoForget, job.DoTest:
	default:
		return false, nil
	}
	was, err := s.Data.At(ctx, id, at)
	if err != nil {
		return false, err
	}
	return job.Beside(&was, now, c), nil
}

// download sends a document as a file.
func (s *api) download(c *gin.Context, name string, v any) error {
	b, err := format.Write(v)
	if err != nil {
		return err
	}
	c.Header("Content-Disposition", fmt.Sprintf("attachment; filename=%q", name))
	c.Data(http.StatusOK, "application/json", b)
	return nil
}

func (s *api) parts(c *gin.Context) error {
	out, err := s.Data.Parts(c.Request.Context())
	if err == nil {
		c.JSON(http.StatusOK, out)
	}
	return err
}

// replaces refuses a part that would take the place of another of its name, unless that is
// what was asked for.
func (s *api) replaces(ctx context.Context, v part.Part, asked bool) error {
	have, err := s.Data.Parts(ctx)
	if err != nil || asked {
		return err
	}
	if i := slices.IndexFunc(have, func(p part.Part) bool { return p.ID == v.ID }); i >= 0 && !reflect.DeepEqual(have[i], v) {
		return &conflict{ProblemDoc{Title: "another part", Status: http.StatusConflict,
			Detail: fmt.Sprintf("the shelf has another part of the id %q, %s, which would be gone; nothing was changed", v.ID, have[i].Name)}}
	}
	return nil
}

// fileBody is the body of a request that is a file.
func fileBody(c *gin.Context) ([]byte, error) {
	return io.ReadAll(http.MaxBytesReader(c.Writer, c.Request.Body, maxFile))
}

// bringIn takes a job, sheet or part file; its format field says which it is.
func (s *api) bringIn(c *gin.Context) error {
	b, err := fileBody(c)
	if err != nil {
		return err
	}
	ctx := c.Request.Context()
	var head struct {
		Format string `json:"format"`
	}
	_ = json.NewDecoder(bytes.NewReader(b)).Decode(&head) // what is wrong is said by the reader below
	var out Imported
	switch head.Format {
	case machine.Format:
		v, err := format.Sheet(b)
		if err != nil {
			return err
		}
		if _, err := s.Data.PutSheet(ctx, store.SheetWrite{Sheet: v, From: store.Whatever, Stamp: s.stamp(c.Query("by"))}); err != nil {
			return err
		}
		out = Imported{"sheet", string(v.ID), v.Name}
	case part.Format:
		v, err := format.Part(b)
		if err != nil {
			return err
		}
		if err := s.replaces(ctx, v, c.Query("replace") == "true"); err != nil {
			return err
		}
		if err := s.Data.PutPart(ctx, v, s.stamp(c.Query("by"))); err != nil {
			return err
		}
		out = Imported{"part", string(v.ID), v.Name}
	default:
		v, err := format.Job(b)
		if err != nil {
			return err
		}
		if _, err := s.Data.Put(ctx, store.Write{Job: v, Done: fact.Of(job.BroughtIn), Stamp: s.stamp(c.Query("by"))}); err != nil {
			return err
		}
		out = Imported{"job", string(v.ID), v.Title}
	}
	c.JSON(http.StatusCreated, out)
	return nil
}
