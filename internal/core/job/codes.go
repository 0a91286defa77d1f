package job

import "deepbay/internal/core/fact"

// This file lists the codes of what this room says. Each has its sentence in say.

// What may be said, by name.
const (
	ACure            fact.Code = "job/a-cure"
	APlaceFor        fact.Code = "job/a-place-for"
	APlan            fact.Code = "job/a-plan"
	AddedFound       fact.Code = "job/added-found"
	AddedManyFound   fact.Code = "job/added-many-found"
	AddedManyToFit   fact.Code = "job/added-many-to-fit"
	AddedIn          fact.Code = "job/added-in"   // how many, of what, found where
	AddedInto        fact.Code = "job/added-into" // how many, of what, planned where
	FoundEmpty       fact.Code = "job/found-empty"
	AddedToFit       fact.Code = "job/added-to-fit"
	AsExpected       fact.Code = "job/as-expected"
	AsFound          fact.Code = "job/as-found"
	BroughtBack      fact.Code = "job/brought-back" // a revision
	BroughtIn        fact.Code = "job/brought-in"
	FromDemo         fact.Code = "job/from-demo"
	LineDamaged      fact.Code = "job/line-damaged" // of the journal
	SaidThen         fact.Code = "job/said-then"
	TookIn           fact.Code = "job/took-in"
	Undid            fact.Code = "job/undid"
	BeginOrder       fact.Code = "job/begin-order"
	CannotConfirm    fact.Code = "job/cannot-confirm"
	ChangedWish      fact.Code = "job/changed-wish"
	CloseMachine     fact.Code = "job/close-machine"
	ClosedJob        fact.Code = "job/closed-job"
	Closing_         fact.Code = "job/closing_"
	CompareScreens   fact.Code = "job/compare-screens"
	Corrected        fact.Code = "job/corrected" // what, in which ways
	SerialIs         fact.Code = "job/serial-is"
	NameIs           fact.Code = "job/name-is"
	NumberIs         fact.Code = "job/number-is"
	PartIs           fact.Code = "job/part-is" // in words
	HoldsIs          fact.Code = "job/holds-is"
	HoldsUnknown     fact.Code = "job/holds-unknown"
	IsToFit          fact.Code = "job/is-to-fit"
	IsFound          fact.Code = "job/is-found"
	CureStop         fact.Code = "job/cure-stop"
	DifferencesOpen  fact.Code = "job/differences-open"
	Done             fact.Code = "job/done"
	EnterFound       fact.Code = "job/enter-found"
	ExplainOrCure    fact.Code = "job/explain-or-cure"
	ExplainedAs      fact.Code = "job/explained-as"
	FoundAndToFit    fact.Code = "job/found-and-to-fit"
	GoOnOrder        fact.Code = "job/go-on-order"
	HandOver         fact.Code = "job/hand-over"
	Hands            fact.Code = "job/hands"
	HandsReady       fact.Code = "job/hands-ready"
	HoldsNow         fact.Code = "job/holds-now"
	KeptForPart      fact.Code = "job/kept-for-part"
	KeptForSheet     fact.Code = "job/kept-for-sheet"
	SayHowTestEnded  fact.Code = "job/say-how-test-ended"
	Accepted         fact.Code = "job/accepted"     // how many warnings
	NotAccepted      fact.Code = "job/not-accepted" // how many warnings
	StaysOff         fact.Code = "job/stays-off"    // a socket, why
	NotFitted        fact.Code = "job/not-fitted"
	ProvesMemory     fact.Code = "job/proves-memory" // seen, stated
	ProvesModule     fact.Code = "job/proves-module" // seen, stated
	ProvesLink       fact.Code = "job/proves-link"   // where, seen, stated
	KeptProven       fact.Code = "job/kept-proven"
	InStage          fact.Code = "job/in-stage"        // which, what was done
	AddedStage       fact.Code = "job/added-stage"     // which
	NamedStage       fact.Code = "job/named-stage"     // which
	DroppedStage     fact.Code = "job/dropped-stage"   // which
	NextStage        fact.Code = "job/next-stage"      // which is finished, which begins
	OutForNow        fact.Code = "job/out-for-now"     // what, from where
	GoOnTo           fact.Code = "job/go-on-to"        // a stage
	StageIsDone      fact.Code = "job/stage-is-done"   // a stage
	LeftOut          fact.Code = "job/left-out"        // a step, why
	TestFailed       fact.Code = "job/test-failed"     // the step, its errors
	TestIsRunning    fact.Code = "job/test-is-running" // the step
	TestCame         fact.Code = "job/test-came"       // the step, through how many passes
	TestRan          fact.Code = "job/test-ran"        // the step, how long
	TestWell         fact.Code = "job/test-well"       // the step
	TestOpen         fact.Code = "job/test-open"       // the step: nobody began it
	LeftAll          fact.Code = "job/left-all"
	LineDiffers      fact.Code = "job/line-differs"
	LinesToRead      fact.Code = "job/lines-to-read"
	LookedTwice      fact.Code = "job/looked-twice"
	LookedUp         fact.Code = "job/looked-up"
	NewAlone         fact.Code = "job/new-alone"
	NotDone          fact.Code = "job/not-done"
	NotDoneAgain     fact.Code = "job/not-done-again"
	NoShopSheet      fact.Code = "job/no-shop-sheet"
	NotLookedUp      fact.Code = "job/not-looked-up"
	OfThisOnly       fact.Code = "job/of-this-only"
	PartIsOther      fact.Code = "job/part-is-other"
	SheetIsOther     fact.Code = "job/sheet-is-other"
	NoAnswer         fact.Code = "job/no-answer"
	NoSuchFact       fact.Code = "job/no-such-fact"
	NotLooked        fact.Code = "job/not-looked"
	NotLookedAt      fact.Code = "job/not-looked-at"
	Nothing          fact.Code = "job/nothing"
	OldAsWell        fact.Code = "job/old-as-well"
	Place            fact.Code = "job/place"
	PlanFit          fact.Code = "job/plan-fit"
	PlanStopped      fact.Code = "job/plan-stopped"
	ProcessorIs      fact.Code = "job/processor-is"
	ProcessorUnknown fact.Code = "job/processor-unknown"
	Put              fact.Code = "job/put"
	PutAnd           fact.Code = "job/put-and"
	PutMat           fact.Code = "job/put-mat"
	ReadHandover     fact.Code = "job/read-handover"
	Removed          fact.Code = "job/removed"
	Reopened         fact.Code = "job/reopened"
	SetTo            fact.Code = "job/set-to"
	Shows            fact.Code = "job/shows"
	StepNotDone      fact.Code = "job/step-not-done"
	TakenBack        fact.Code = "job/taken-back"
	TheOwner         fact.Code = "job/the-owner"
	Together         fact.Code = "job/together"
	TookOut          fact.Code = "job/took-out"
	TookOutOf        fact.Code = "job/took-out-of"
)

// Things that are counted.
const (
	Lines       fact.Noun = "line"
	Differences fact.Noun = "difference"
	Warnings    fact.Noun = "warning"
	Passes      fact.Noun = "pass"
)
