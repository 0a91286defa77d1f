package server

import (
	"time"

	"deepbay/internal/core/job"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/plan"
	"deepbay/internal/core/power"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/say"
	"deepbay/internal/core/shelf"
	"deepbay/internal/core/shorthand"
	"deepbay/internal/store"
)

// JobCard is a job as the bench lists it.
type JobCard struct {
	ID       job.ID        `json:"id"`
	Title    string        `json:"title"`
	Tag      string        `json:"tag"`
	Owner    string        `json:"owner"`
	Wish     string        `json:"wish"`
	Sheet    string        `json:"sheet"`
	Class    machine.Class `json:"class"`
	Arrived  time.Time     `json:"arrived"`
	Stands   string        `json:"stands,omitempty"`
	Due      job.Date      `json:"due,omitempty"`
	Updated  time.Time     `json:"updated"`
	Revision int           `json:"revision"`
	Status   say.Status    `json:"status"`
	Ill      say.Text      `json:"ill,omitzero"` // why nothing can be said of it: it cannot be read or judged
}

// JobList is a page of the bench: open jobs first, the latest change first.
type JobList struct {
	Jobs   []JobCard `json:"jobs"`
	Open   int       `json:"open"`   // in all
	Closed int       `json:"closed"` // in all
	Today  job.Date  `json:"today"`  // what is due earlier is late
	Says   say.Text  `json:"says"`
	Next   string    `json:"next,omitempty"` // where the next page begins
}

// JobView is one job with everything the core says about it.
type JobView struct {
	Revision int           `json:"revision"`
	Updated  time.Time     `json:"updated"`
	View     say.View      `json:"view"`
	Journal  []say.Entry   `json:"journal"`
	Changed  []say.Changed `json:"changed"` // what the last change made different
}

// SheetView is a sheet with what an empty machine of it says, its rules in words,
// and its history, oldest first.
type SheetView struct {
	Sheet    machine.Sheet     `json:"sheet"`
	Revision int               `json:"revision"`
	Empty    say.Resolved      `json:"empty"`
	Rules    []say.Text        `json:"rules"`
	Facts    []say.SocketFacts `json:"facts"`    // what it says of each socket, to read
	Pictures []SheetPicture    `json:"pictures"` // pages of the machine's manual
	History  []say.Entry       `json:"history"`
}

// SheetCheck is the judgement of a sheet while it is written. Empty is absent when
// it cannot be read at all.
type SheetCheck struct {
	Problems []problem.Problem `json:"problems"`
	Doubts   []problem.Problem `json:"doubts"` // what contradicts itself or can hardly be so, and stops nothing
	Groups   []say.Text        `json:"groups"` // how many lanes of each group are wired to sockets
	Empty    *say.Resolved     `json:"empty,omitempty"`
	Rules    []say.Text        `json:"rules"`
	Sayable  say.Sayable       `json:"sayable"` // by rules
}

// PutSheet is a version of a sheet, made from a revision; 0 makes a new one.
type PutSheet struct {
	Revision int           `json:"revision" jsonschema:"minimum=0"`
	Key      string        `json:"key,omitempty" jsonschema:"maxLength=80"`
	By       string        `json:"by,omitempty" jsonschema:"maxLength=80"`
	Says     string        `json:"says,omitempty" jsonschema:"maxLength=300"` // why; absent is what differs
	Back     int           `json:"back,omitempty" jsonschema:"minimum=1"`     // the revision that is brought back
	Sheet    machine.Sheet `json:"sheet"`
}

// SheetNow is the other version in a conflict, with what it has differently.
type SheetNow struct {
	Sheet    machine.Sheet `json:"sheet"`
	Revision int           `json:"revision"`
	Differs  []say.Text    `json:"differs"`
}

// NewJob starts a job from a sheet and a wish.
type NewJob struct {
	Title  string     `json:"title" jsonschema:"minLength=1,maxLength=160"`
	Tag    string     `json:"tag,omitempty" jsonschema:"maxLength=60"`
	Owner  string     `json:"owner,omitempty" jsonschema:"maxLength=120"`
	Sheet  machine.ID `json:"sheet" jsonschema:"minLength=1,maxLength=60"`
	Fresh  bool       `json:"fresh,omitempty"` // a new machine with nothing in it
	Wish   rig.Wish   `json:"wish"`
	Stands string     `json:"stands,omitempty" jsonschema:"maxLength=60"`
	Due    job.Date   `json:"due,omitempty"`
	Lines  string     `json:"lines,omitempty" jsonschema:"maxLength=4000"` // what was found in it, as DoAdd takes it
	By     string     `json:"by,omitempty" jsonschema:"maxLength=80"`
	Key    string     `json:"key,omitempty" jsonschema:"maxLength=80"`
}

// ChangeRequest is one change, made at a revision. The same key twice is applied once.
type ChangeRequest struct {
	Revision int        `json:"revision" jsonschema:"minimum=1"`
	Key      string     `json:"key,omitempty" jsonschema:"maxLength=80"`
	By       string     `json:"by,omitempty" jsonschema:"maxLength=80"`
	Change   job.Change `json:"change"`
}

// UndoRequest takes the last change back.
type UndoRequest struct {
	Revision int    `json:"revision" jsonschema:"minimum=1"`
	Key      string `json:"key,omitempty" jsonschema:"maxLength=80"`
	By       string `json:"by,omitempty" jsonschema:"maxLength=80"`
	Others   bool   `json:"others,omitempty"` // also where the last change is somebody else's
	Redo     bool   `json:"redo,omitempty"`   // what was undone last is done again
}

// ProblemDoc is an error for programs and people (RFC 9457). In a conflict it
// carries the job as it is now, the change that was refused, and what happened in between.
type ProblemDoc struct {
	Type    string            `json:"type"`
	Title   string            `json:"title"`
	Status  int               `json:"status"`
	Detail  string            `json:"detail"`
	Errors  []problem.Problem `json:"errors,omitempty"`
	Current *JobView          `json:"current,omitempty"`
	Yours   *job.Change       `json:"yours,omitempty"`
	Would   say.Text          `json:"would,omitzero"` // what yours does to the job as it is now, or why it cannot be done any more
	Missed  []say.Entry       `json:"missed,omitempty"`
	Sheet   *SheetNow         `json:"sheet,omitempty"`
}

// Imported tells what a file brought.
type Imported struct {
	Kind string `json:"kind"` // job, sheet, part or shop
	ID   string `json:"id"`
	Name string `json:"name"`
}

// JobRef names a job.
type JobRef struct {
	ID    job.ID `json:"id"`
	Title string `json:"title"`
}

// Back asks for the last good revision of an ill job.
type Back struct {
	By  string `json:"by,omitempty" jsonschema:"maxLength=80"`
	Key string `json:"key,omitempty" jsonschema:"maxLength=80"`
}

// ShelfRow is one kind of part as the shelf lists it.
type ShelfRow struct {
	Stock    shelf.Stock `json:"stock"`
	Revision int         `json:"revision"`
	What     say.Text    `json:"what"`
	Price    string      `json:"price"`          // "42.50", empty where it is not stated
	Used     []JobRef    `json:"used"`           // the latest jobs that have it
	More     bool        `json:"more"`           // further jobs have it
	Goes     *say.Offer  `json:"goes,omitempty"` // the best place for it in the plan of the job that is asked for
}

// ShelfList is a page of the shelf, by name; where a job is asked for, what suits it first.
type ShelfList struct {
	Parts []ShelfRow  `json:"parts"`
	Count int         `json:"count"` // kinds of part in all
	Kinds []KindCount `json:"kinds"` // how many there are of each, whichever is asked for
	Next  part.ID     `json:"next,omitempty"`
	For   *ShelfFor   `json:"for,omitempty"`
}

// KindCount is how many parts of the shelf are of a kind.
type KindCount struct {
	Kind  shorthand.Kind `json:"kind"`
	Count int            `json:"count"`
}

// ShelfFor is the job for which the shelf is looked through.
type ShelfFor struct {
	ID       job.ID `json:"id"`
	Title    string `json:"title"`
	Revision int    `json:"revision"`
}

// Progress is how far a question to the planner is.
type Progress struct {
	Says    say.Text `json:"says"`
	Steps   int64    `json:"steps"`
	Seconds int      `json:"seconds"` // since it was asked
	Most    int      `json:"most"`    // seconds after which it is given up
}

// Damage is a record that is not what was kept.
type Damage struct {
	What string   `json:"what"` // "job", "sheet", "part", "picture" or "journal"
	ID   string   `json:"id"`
	Says say.Text `json:"says"`
}

// OwnerJobs is what is here of one owner.
type OwnerJobs struct {
	Owner string   `json:"owner"`
	Jobs  []JobRef `json:"jobs"`
	Says  say.Text `json:"says"`
	Keeps say.Text `json:"keeps,omitzero"` // why they cannot be deleted now
}

// Forget deletes all there is of an owner, as many jobs as were listed.
type Forget struct {
	Owner string `json:"owner" jsonschema:"minLength=1,maxLength=120"`
	Jobs  int    `json:"jobs" jsonschema:"minimum=1"`
	By    string `json:"by" jsonschema:"maxLength=80"`
	Key   string `json:"key,omitempty" jsonschema:"maxLength=80"`
}

// Forgotten is what was deleted.
type Forgotten struct {
	Jobs int      `json:"jobs"`
	Says say.Text `json:"says"`
}

// Gone is a job that is no longer here.
type Gone struct {
	At   time.Time `json:"at"`
	By   string    `json:"by"`
	Says say.Text  `json:"says"`
}

// Restock corrects what is on the shelf of one kind of part, as it was at a revision; 0
// puts it there first.
type Restock struct {
	Revision int         `json:"revision" jsonschema:"minimum=0"`
	By       string      `json:"by" jsonschema:"maxLength=80"`
	Key      string      `json:"key,omitempty" jsonschema:"maxLength=80"`
	Stock    shelf.Stock `json:"stock"`
}

// QuickAdd is a line of shorthand or a label, with what is not part of it.
type QuickAdd struct {
	Text      string      `json:"text" jsonschema:"maxLength=300"`
	Price     string      `json:"price,omitempty" jsonschema:"maxLength=20"`
	Condition shelf.Grade `json:"condition,omitempty"`
	Serials   string      `json:"serials,omitempty" jsonschema:"maxLength=2000"` // blanks between them
	By        string      `json:"by,omitempty" jsonschema:"maxLength=80"`
	Key       string      `json:"key,omitempty" jsonschema:"maxLength=80"` // names the request: sent twice, the pieces are there once
}

// CSVReport is what a list came to.
type CSVReport struct {
	Says     string             `json:"says"`
	Good     int                `json:"good"`
	Taken    int                `json:"taken"`
	Problems []shelf.RowProblem `json:"problems"`
}

// Health is the answer that the server lives.
type Health struct {
	Status  string   `json:"status"`
	Version string   `json:"version"`
	Damaged []Damage `json:"damaged,omitempty"` // records that were met and are not what was kept
	Waiting int      `json:"waiting"`           // changes that wait for the disk
	Space   *Space   `json:"space,omitempty"`   // absent where it cannot be measured
	Backup  *Backup  `json:"backup,omitempty"`  // absent where none are made by the server
}

// Space is the room that the data takes, and what is left on its disk.
type Space struct {
	Bytes     int64    `json:"bytes"`
	FreeBytes int64    `json:"freeBytes"`
	Low       bool     `json:"low"`
	Says      say.Text `json:"says"`
}

// Backup is how old the newest backup is, and what is wrong with it.
type Backup struct {
	Last  time.Time `json:"last,omitzero"`
	Old   bool      `json:"old"` // it is older than it may be, or the last try failed
	Says  say.Text  `json:"says,omitzero"`
	Fault error     `json:"-"` // of the last try
}

// WhyNot asks why a piece is not in a socket in the best plan.
type WhyNot struct {
	Question job.PlanQuestion `json:"question"`
	Item     rig.ItemID       `json:"item" jsonschema:"maxLength=60"`
	Socket   rig.Path         `json:"socket" jsonschema:"maxLength=200"`
}

// Keep writes what was looked up in a job into the shop's sheet or part.
type Keep struct {
	Fact rig.Fact `json:"fact"`
	By   string   `json:"by,omitempty" jsonschema:"maxLength=80"`
}

// KeepProven writes what a job proved into the shop's sheet.
type KeepProven struct {
	Of     job.ProvenOf     `json:"of"`
	Socket machine.SocketID `json:"socket,omitempty" jsonschema:"maxLength=60"`
	By     string           `json:"by,omitempty" jsonschema:"maxLength=80"`
}

// NewerSheet is what the shop's version of a job's sheet would change in the job; empty where
// it says the same.
type NewerSheet struct {
	Differs []say.Text `json:"differs"`
	Comes   []say.Text `json:"comes"` // findings that the plan would have
	Goes    []say.Text `json:"goes"`  // and those that it has now
	Fault   say.Text   `json:"fault,omitzero"`

	Proofs []ModelProof `json:"proofs"` // what other jobs on the model showed, and the shop's sheet does not say
}

// AtRevision asks for something about a job as it was at a revision.
type AtRevision struct {
	Revision int    `json:"revision" jsonschema:"minimum=1"`
	By       string `json:"by,omitempty" jsonschema:"maxLength=80"`
	Key      string `json:"key,omitempty" jsonschema:"maxLength=80"`
}

// KeepPart writes what a job says of a piece's part into the shop's description of it.
type KeepPart struct {
	Item rig.ItemID `json:"item" jsonschema:"minLength=1,maxLength=60"`
	By   string     `json:"by,omitempty" jsonschema:"maxLength=80"`
}

// Because is an answer in words.
type Because struct {
	Says say.Text `json:"says"`
}

// API names every document that crosses the wire, so that one schema and one
// set of TypeScript types cover them.
type API struct {
	Jobs        JobList           `json:"jobs"`
	JobView     JobView           `json:"jobView"`
	NewJob      NewJob            `json:"newJob"`
	Change      ChangeRequest     `json:"change"`
	Undo        UndoRequest       `json:"undo"`
	Problem     ProblemDoc        `json:"problem"`
	Sheets      []store.SheetName `json:"sheets"`
	Layouts     []machine.Sheet   `json:"layouts"`
	SheetView   SheetView         `json:"sheetView"`
	Pictures    []SheetPicture    `json:"pictures"`
	SheetCheck  SheetCheck        `json:"sheetCheck"`
	PutSheet    PutSheet          `json:"putSheet"`
	Parts       []part.Part       `json:"parts"`
	Offers      []say.Offer       `json:"offers"`
	Plan        job.PlanQuestion  `json:"plan"`
	Advice      say.Advice        `json:"advice"`
	WhyNot      WhyNot            `json:"whyNot"`
	Keep        Keep              `json:"keep"`
	KeepProven  KeepProven        `json:"keepProven"`
	Bench       BenchView         `json:"bench"`
	Practice    PracticeView      `json:"practice"`
	PutPractice PutPractice       `json:"putPractice"`
	KeepDiffers KeepDifference    `json:"keepDifference"`
	KeepPart    KeepPart          `json:"keepPart"`
	NewerSheet  NewerSheet        `json:"newerSheet"`
	AtRevision  AtRevision        `json:"atRevision"`
	Need        plan.Need         `json:"need"`
	Shopping    say.Shopping      `json:"shopping"`
	Because     Because           `json:"because"`
	Happened    Happened          `json:"happened"`
	Shelf       ShelfList         `json:"shelf"`
	QuickAdd    QuickAdd          `json:"quickAdd"`
	Restock     Restock           `json:"restock"`
	Back        Back              `json:"back"`
	ShelfLog    []say.Entry       `json:"shelfLog"`
	CSVReport   CSVReport         `json:"csvReport"`
	Imported    Imported          `json:"imported"`
	Progress    Progress          `json:"progress"`
	Owner       OwnerJobs         `json:"owner"`
	Forget      Forget            `json:"forget"`
	Forgotten   Forgotten         `json:"forgotten"`
	Gone        []Gone            `json:"gone"`
	Health      Health            `json:"health"`
	Reply       say.Reply         `json:"reply"`
	Written     []say.Written     `json:"written"`
	Intake      say.Intake        `json:"intake"`
	Form        say.ShortForm     `json:"form"`
	FormAsked   FormQuestion      `json:"formAsked"`
	Fits        []say.Fit         `json:"fits"`
	Check       say.Check         `json:"check"`
	Observation power.Observation `json:"observation"`
	Trouble     TroubleView       `json:"trouble"`
	Drafted     say.Drafted       `json:"drafted"`
	SimView     SimView           `json:"simView"`
	SimAction   SimAction         `json:"simAction"`
	Invitation  Invitation        `json:"invitation"`
	Gains       say.Gains         `json:"gains"`
	SeriesRead  SeriesRead        `json:"seriesRead"`
	Arrays      say.ArrayChoices  `json:"arrays"`
	Volumes     say.Volumes       `json:"volumes"`
	Divided     say.Divided       `json:"divided"`
	Transfers   say.Transfers     `json:"transfers"`
	Logbook     LogbookPage       `json:"logbook"`
	Life        LifeView          `json:"life"`
	Model       ModelView         `json:"model"`
	Figures     say.Figures       `json:"figures"`
}
