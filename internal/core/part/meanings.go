package part

import "deepbay/internal/core/fact"

// This file lists what words can be taken for, what a text can leave unsaid and what it
// can leave open. Each has its words in say.

// What a word was taken for.
const (
	IsPCIeDrive     fact.Code = "part/is-pcie-drive"
	IsSATADrive     fact.Code = "part/is-sata-drive"
	IsM2Card        fact.Code = "part/is-m2-card"
	IsOfForm        fact.Code = "part/is-of-form"
	IsFlash         fact.Code = "part/is-flash"
	IsPlatters      fact.Code = "part/is-platters"
	IsPlattersAt    fact.Code = "part/is-platters-at" // turns a minute
	OnOneSide       fact.Code = "part/on-one-side"
	OnBothSides     fact.Code = "part/on-both-sides"
	BringsSink      fact.Code = "part/brings-sink"
	IsBare          fact.Code = "part/is-bare"
	LongModule      fact.Code = "part/long-module"
	LongUnbuffered  fact.Code = "part/long-unbuffered"
	LongRegistered  fact.Code = "part/long-registered"
	ShortModule     fact.Code = "part/short-module"
	SpeedIsBase     fact.Code = "part/speed-is-base"
	SpeedIsProfile  fact.Code = "part/speed-is-profile"
	HasCheckBits    fact.Code = "part/has-check-bits"
	NoCheckBits     fact.Code = "part/no-check-bits"
	IsRegistered    fact.Code = "part/is-registered"
	IsUnbuffered    fact.Code = "part/is-unbuffered"
	SizedM2         fact.Code = "part/sized-m2"       // width, length
	SizedM2Above    fact.Code = "part/sized-m2-above" // and the most above its board
	SizedM2Between  fact.Code = "part/sized-m2-about" // and the most above and below it
	IsNotchedAt     fact.Code = "part/is-notched-at"  // keys
	HasRanks        fact.Code = "part/has-ranks"      // how many
	RunsAt          fact.Code = "part/runs-at"        // a voltage
	IsOfGeneration  fact.Code = "part/is-of-gen"      // of the link
	HasLanes        fact.Code = "part/has-lanes"      // how many
	PiecesOf        fact.Code = "part/pieces-of"      // how many, of which size
	HasProfile      fact.Code = "part/has-profile"    // its rate
	IsOfFamily      fact.Code = "part/is-of-family"   // of memory
	FamilyAtProfile fact.Code = "part/family-profile" // family, a rate no module has of its own
	IsSpeed         fact.Code = "part/is-speed"       // its two names
	IsLabel         fact.Code = "part/is-label"       //
	HasLatency      fact.Code = "part/has-latency"    // clocks, nanoseconds
)

// What a text leaves unsaid.
const (
	LacksCapacity   fact.Code = "part/lacks-capacity"
	LacksProtocol   fact.Code = "part/lacks-protocol"
	LacksGeneration fact.Code = "part/lacks-generation"
	LacksLanes      fact.Code = "part/lacks-lanes"
	LacksLength     fact.Code = "part/lacks-length"
	LacksNotch      fact.Code = "part/lacks-notch"
	LacksSides      fact.Code = "part/lacks-sides"
	LacksSize       fact.Code = "part/lacks-size"
	LacksFamily     fact.Code = "part/lacks-family"
	LacksSpeed      fact.Code = "part/lacks-speed"
	LacksRanks      fact.Code = "part/lacks-ranks"
	LacksECC        fact.Code = "part/lacks-ecc"
	LacksRegister   fact.Code = "part/lacks-register"
)

// What must be settled.
const (
	WhichSpeed    fact.Code = "part/which-speed"
	WhichForm     fact.Code = "part/which-form"
	BaseOrProfile fact.Code = "part/base-or-profile"
	MemoryOrDrive fact.Code = "part/memory-or-drive"
)
