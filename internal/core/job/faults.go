package job

import "deepbay/internal/core/fact"

// This file lists the codes of what can be wrong. Each has its words in say.

// What can be wrong, by name.
const (
	NoBayIsNamed       fact.Code = "job/no-bay-is-named"
	BayHoldsAnother    fact.Code = "job/bay-holds-another"
	OnItself           fact.Code = "job/on-itself"
	HoldsAnother       fact.Code = "job/holds-another"
	ThereAlready       fact.Code = "job/there-already"
	InTwoPlaces        fact.Code = "job/in-two-places"
	InNoSocket         fact.Code = "job/in-no-socket"
	NoSuchChange       fact.Code = "job/no-such-change"
	NoSuchCriterion    fact.Code = "job/no-such-criterion"
	NoOption           fact.Code = "job/no-option"
	NoDifference       fact.Code = "job/no-difference"
	MovesNothing       fact.Code = "job/moves-nothing"
	ItemNamedTwice     fact.Code = "job/item-named-twice"
	PartNamedTwice     fact.Code = "job/part-named-twice"
	NoItemIsNamed      fact.Code = "job/no-item-is-named"
	NoSuchLine         fact.Code = "job/no-such-line"
	NoMove             fact.Code = "job/no-move"
	NoPartIsNamed      fact.Code = "job/no-part-is-named"
	InLine             fact.Code = "job/in-line"       // its number, what is wrong
	WrittenTwice       fact.Code = "job/written-twice" // a place
	NoSuchPlace        fact.Code = "job/no-such-place" // what was written, the sockets there are
	PiecesAndPlaces    fact.Code = "job/pieces-and-places"
	WasFoundIn         fact.Code = "job/was-found-in" // what, where
	LiesThere          fact.Code = "job/lies-there"   // what, where
	MoreSerials        fact.Code = "job/more-serials" // how many, for how many pieces
	NoPart             fact.Code = "job/no-part"
	NoProcessorIsNamed fact.Code = "job/no-processor-is-named"
	NoReason           fact.Code = "job/no-reason"
	NoSettingIsNamed   fact.Code = "job/no-setting-is-named"
	NoSocketIsNamed    fact.Code = "job/no-socket-is-named"
	NoSocket           fact.Code = "job/no-socket"
	NoWish             fact.Code = "job/no-wish"
	JobIsClosed        fact.Code = "job/job-is-closed"
	JobIsOpen          fact.Code = "job/job-is-open"
	OnlyPlanAhead      fact.Code = "job/only-plan-ahead"
	NoSuchStage        fact.Code = "job/no-such-stage" // its number
	NoStageName        fact.Code = "job/no-stage-name"
	TooManyStages      fact.Code = "job/too-many-stages" // how many there may be
	LastStage          fact.Code = "job/last-stage"
	StagesToCome       fact.Code = "job/stages-to-come" // the next
	WasFitted          fact.Code = "job/was-fitted"     // what
	InPastStage        fact.Code = "job/in-past-stage"  // what
	ArrayTwice         fact.Code = "job/array-twice"
	TooFewMembers      fact.Code = "job/too-few-members" // level, fewest, how many
	NoMember           fact.Code = "job/no-member"       // what
	MemberTwice        fact.Code = "job/member-twice"    // what
	NoSuchArray        fact.Code = "job/no-such-array"
	NoSuchRole         fact.Code = "job/no-such-role"
	NoSuchDay          fact.Code = "job/no-such-day" // as written
	NotFresh           fact.Code = "job/not-fresh"
	OtherSheet         fact.Code = "job/other-sheet" // the id of the job's
	SameSheet          fact.Code = "job/same-sheet"
	TooLong            fact.Code = "job/too-long" // how many letters there may be
	NotProven          fact.Code = "job/not-proven"
	NotOnSheet         fact.Code = "job/not-on-sheet"
	NoSuchFinding      fact.Code = "job/no-such-finding"
	NoReasonLeft       fact.Code = "job/no-reason-left"
	SayHowItEnded      fact.Code = "job/say-how-it-ended" // the step of a test
	Dangerous          fact.Code = "job/dangerous"        // the step, what can come of it
	NoTest             fact.Code = "job/no-test"
	NoResult           fact.Code = "job/no-result"
	NoPasses           fact.Code = "job/no-passes"
	WhichErrors        fact.Code = "job/which-errors"
	OneLine            fact.Code = "job/one-line"
	NothingFitted      fact.Code = "job/nothing-fitted"
	NoSuchStep         fact.Code = "job/no-such-step"
	NotLookedHere      fact.Code = "job/not-looked-here"
	WhichFact          fact.Code = "job/which-fact"
)
