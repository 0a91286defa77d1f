package shorthand

import "deepbay/internal/core/fact"

// This file lists what words can be taken for, what a text can leave unsaid, what it can
// leave open and what can be wrong with it. Each has its words in say.

// What a word was taken for.
const (
	AllOf           fact.Code = "shorthand/all-of" // several of these
	IsNamed         fact.Code = "shorthand/is-named"
	IsNumbered      fact.Code = "shorthand/is-numbered"
	HasSerial       fact.Code = "shorthand/has-serial"
	Pieces          fact.Code = "shorthand/pieces"
	PiecesOf        fact.Code = "shorthand/pieces-of" // how many, of which size
	IsKit           fact.Code = "shorthand/is-kit"
	IsSize          fact.Code = "shorthand/is-size"
	IsSumOf         fact.Code = "shorthand/is-sum-of" // how many pieces
	Measures        fact.Code = "shorthand/measures"  // millimetres
	IsPCIeDrive     fact.Code = "shorthand/is-pcie-drive"
	IsSATADrive     fact.Code = "shorthand/is-sata-drive"
	IsSATAOf        fact.Code = "shorthand/is-sata-of" // generation
	IsM2Card        fact.Code = "shorthand/is-m2-card"
	IsOfForm        fact.Code = "shorthand/is-of-form"
	IsFlash         fact.Code = "shorthand/is-flash"
	IsPlatters      fact.Code = "shorthand/is-platters"
	IsPlattersAt    fact.Code = "shorthand/is-platters-at" // turns a minute
	IsOptical       fact.Code = "shorthand/is-optical"
	OnOneSide       fact.Code = "shorthand/on-one-side"
	OnBothSides     fact.Code = "shorthand/on-both-sides"
	BringsSink      fact.Code = "shorthand/brings-sink"
	SinkUpTo        fact.Code = "shorthand/sink-up-to"   // millimetres
	StandsUpTo      fact.Code = "shorthand/stands-up-to" // millimetres
	HangsDownTo     fact.Code = "shorthand/hangs-down-to"
	IsBare          fact.Code = "shorthand/is-bare"
	ReadsAt         fact.Code = "shorthand/reads-at"
	WritesAt        fact.Code = "shorthand/writes-at"
	DrawsUpTo       fact.Code = "shorthand/draws-up-to" // watts
	HasPinOff       fact.Code = "shorthand/has-pin-off"
	NoPinOff        fact.Code = "shorthand/no-pin-off"
	LongModule      fact.Code = "shorthand/long-module"
	LongUnbuffered  fact.Code = "shorthand/long-unbuffered"
	LongRegistered  fact.Code = "shorthand/long-registered"
	LongClocked     fact.Code = "shorthand/long-clocked"
	LongPins        fact.Code = "shorthand/long-pins"
	ShortModule     fact.Code = "shorthand/short-module"
	ShortClocked    fact.Code = "shorthand/short-clocked"
	ShortPins       fact.Code = "shorthand/short-pins" // family
	HasClockDriver  fact.Code = "shorthand/has-clock-driver"
	NoClockDriver   fact.Code = "shorthand/no-clock-driver"
	OfForm          fact.Code = "shorthand/of-form" // of a module
	SpeedIsBase     fact.Code = "shorthand/speed-is-base"
	SpeedIsProfile  fact.Code = "shorthand/speed-is-profile"
	TransfersAt     fact.Code = "shorthand/transfers-at"
	HasCheckBits    fact.Code = "shorthand/has-check-bits"
	NoCheckBits     fact.Code = "shorthand/no-check-bits"
	IsRegistered    fact.Code = "shorthand/is-registered"
	IsUnbuffered    fact.Code = "shorthand/is-unbuffered"
	LetterInDoubt   fact.Code = "shorthand/letter-in-doubt"
	SizedM2         fact.Code = "shorthand/sized-m2"       // width, length
	SizedM2Above    fact.Code = "shorthand/sized-m2-above" // and the most above its board
	SizedM2Between  fact.Code = "shorthand/sized-m2-about" // and the most above and below it
	IsNotchedAt     fact.Code = "shorthand/is-notched-at"  // keys
	HasRanks        fact.Code = "shorthand/has-ranks"      // how many
	RanksOf         fact.Code = "shorthand/ranks-of"       // how many, of devices so wide
	RunsAt          fact.Code = "shorthand/runs-at"        // voltages
	IsOfGeneration  fact.Code = "shorthand/is-of-gen"      // of the link
	HasLanes        fact.Code = "shorthand/has-lanes"      // how many
	HasProfile      fact.Code = "shorthand/has-profile"    // its rate
	IsOfFamily      fact.Code = "shorthand/is-of-family"   // of memory
	FamilyAtProfile fact.Code = "shorthand/family-profile" // family, a rate no module has of its own
	IsSpeed         fact.Code = "shorthand/is-speed"       // its two names
	Clocks          fact.Code = "shorthand/clocks"
	Timings         fact.Code = "shorthand/timings"     // the first of them
	HasLatency      fact.Code = "shorthand/has-latency" // clocks, nanoseconds
)

// What a text leaves unsaid.
const (
	LacksCapacity   fact.Code = "shorthand/lacks-capacity"
	LacksProtocol   fact.Code = "shorthand/lacks-protocol"
	LacksGeneration fact.Code = "shorthand/lacks-generation"
	LacksLanes      fact.Code = "shorthand/lacks-lanes"
	LacksLength     fact.Code = "shorthand/lacks-length"
	LacksNotch      fact.Code = "shorthand/lacks-notch"
	LacksSides      fact.Code = "shorthand/lacks-sides"
	LacksHeight     fact.Code = "shorthand/lacks-height"
	LacksSize       fact.Code = "shorthand/lacks-size"
	LacksFamily     fact.Code = "shorthand/lacks-family"
	LacksSpeed      fact.Code = "shorthand/lacks-speed"
	LacksRanks      fact.Code = "shorthand/lacks-ranks"
	LacksECC        fact.Code = "shorthand/lacks-ecc"
	LacksRegister   fact.Code = "shorthand/lacks-register"
)

// What must be settled.
const (
	WhichSpeed    fact.Code = "shorthand/which-speed"
	WhichForm     fact.Code = "shorthand/which-form"
	WhichProtocol fact.Code = "shorthand/which-protocol"
	WhichNumber   fact.Code = "shorthand/which-number"
	BaseOrProfile fact.Code = "shorthand/base-or-profile"
	KindOrBin     fact.Code = "shorthand/kind-or-bin"
	HowManyInKit  fact.Code = "shorthand/how-many-in-kit"
	MemoryOrDrive fact.Code = "shorthand/memory-or-drive"
)

// What can be wrong.
const (
	NothingTyped      fact.Code = "shorthand/nothing-typed"
	TooLong           fact.Code = "shorthand/too-long"      // the most
	MeansNothing      fact.Code = "shorthand/means-nothing" // the word, and a hint
	HintLoose         fact.Code = "shorthand/hint-loose"
	HintCard          fact.Code = "shorthand/hint-card"
	HintBox           fact.Code = "shorthand/hint-box"
	HintLead          fact.Code = "shorthand/hint-lead"
	HintSupply        fact.Code = "shorthand/hint-supply"
	HintPower         fact.Code = "shorthand/hint-power"
	HintHolder        fact.Code = "shorthand/hint-holder"
	TwoAnswers        fact.Code = "shorthand/two-answers" // two words
	SecondSize        fact.Code = "shorthand/second-size"
	KitAgainstSum     fact.Code = "shorthand/kit-against-sum" // pieces, size of each, sum
	CouldBe           fact.Code = "shorthand/could-be"
	SolderedDown      fact.Code = "shorthand/soldered-down"
	WhichMeasure      fact.Code = "shorthand/which-measure"
	OpticalHasNone    fact.Code = "shorthand/optical-has-none"
	NotchAgainstWidth fact.Code = "shorthand/notch-against-width"
	WordsOfTwoForms   fact.Code = "shorthand/words-of-two-forms"
	WordsOfTwoKinds   fact.Code = "shorthand/words-of-two-kinds"
)

// What a word of a card, box or fitting was taken for.
const (
	EdgeOf         fact.Code = "shorthand/edge-of"
	WiredWith      fact.Code = "shorthand/wired-with"
	Covers         fact.Code = "shorthand/covers" // openings
	CardLong       fact.Code = "shorthand/card-long"
	LowBracket     fact.Code = "shorthand/low-bracket"
	FullBracket    fact.Code = "shorthand/full-bracket"
	NeedsPlugs     fact.Code = "shorthand/needs-plugs" // how many, of which kind
	IsForPictures  fact.Code = "shorthand/is-for-pictures"
	IsForNetwork   fact.Code = "shorthand/is-for-network"
	IsForRadio     fact.Code = "shorthand/is-for-radio"
	IsForCapture   fact.Code = "shorthand/is-for-capture"
	IsForSound     fact.Code = "shorthand/is-for-sound"
	Adapts         fact.Code = "shorthand/adapts" // to what
	Holds          fact.Code = "shorthand/holds"  // how many, of what
	HasPorts       fact.Code = "shorthand/has-ports"
	HoldsPorts     fact.Code = "shorthand/holds-ports"
	HasChip        fact.Code = "shorthand/has-chip"
	NoChip         fact.Code = "shorthand/no-chip"
	FirstLanes     fact.Code = "shorthand/first-lanes"
	LanesEach      fact.Code = "shorthand/lanes-each"
	WiredEach      fact.Code = "shorthand/wired-each"
	PostsFor       fact.Code = "shorthand/posts-for"
	TakesM2        fact.Code = "shorthand/takes-m2"
	TakesU2        fact.Code = "shorthand/takes-u2"
	OverUSB        fact.Code = "shorthand/over-usb"
	DrivesPCIe     fact.Code = "shorthand/drives-pcie"
	DrivesSATA     fact.Code = "shorthand/drives-sata"
	TakesDrives    fact.Code = "shorthand/takes-drives" // of a form
	HasBays        fact.Code = "shorthand/has-bays"
	RoomForHigh    fact.Code = "shorthand/room-for-high"
	HasQueues      fact.Code = "shorthand/has-queues"
	NoQueues       fact.Code = "shorthand/no-queues"
	HasTrim        fact.Code = "shorthand/has-trim"
	NoTrim         fact.Code = "shorthand/no-trim"
	FedByPort      fact.Code = "shorthand/fed-by-port"
	FedByMains     fact.Code = "shorthand/fed-by-mains"
	HasTranslation fact.Code = "shorthand/has-translation"
	NoTranslation  fact.Code = "shorthand/no-translation"
	IsLong         fact.Code = "shorthand/is-long"
	LeadEnds       fact.Code = "shorthand/lead-ends" // at the port, at the drive
	LeadEnd        fact.Code = "shorthand/lead-end"  // at the drive
	FromTo         fact.Code = "shorthand/from-to"
	FromPlug       fact.Code = "shorthand/from-plug"
	Feeds          fact.Code = "shorthand/feeds"
	EndsIn         fact.Code = "shorthand/ends-in"   // how many, which plug
	OfSupply       fact.Code = "shorthand/of-supply" // the model
	IsSplitter     fact.Code = "shorthand/is-splitter"
	IsCrimped      fact.Code = "shorthand/is-crimped"
	IsMoulded      fact.Code = "shorthand/is-moulded"
	IsFitting      fact.Code = "shorthand/is-fitting"
	HoldsIn        fact.Code = "shorthand/holds-in"
	HoldsOne       fact.Code = "shorthand/holds-one"
	FitsBay        fact.Code = "shorthand/fits-bay"
	HasThread      fact.Code = "shorthand/has-thread"
)

// What a line about a card, box or fitting leaves unsaid, leaves open, and what can be
// wrong with it.
const (
	LacksEdge        fact.Code = "shorthand/lacks-edge"
	LacksWired       fact.Code = "shorthand/lacks-wired"
	LacksOpenings    fact.Code = "shorthand/lacks-openings"
	LacksCardLength  fact.Code = "shorthand/lacks-card-length"
	LacksBracket     fact.Code = "shorthand/lacks-bracket"
	LacksPlugs       fact.Code = "shorthand/lacks-plugs"
	LacksUse         fact.Code = "shorthand/lacks-use"
	LacksUSB         fact.Code = "shorthand/lacks-usb"
	LacksQueues      fact.Code = "shorthand/lacks-queues"
	LacksTrim        fact.Code = "shorthand/lacks-trim"
	LacksSupplyOf    fact.Code = "shorthand/lacks-supply-of"
	LacksTranslation fact.Code = "shorthand/lacks-translation"
	LacksEnd         fact.Code = "shorthand/lacks-end"
	LacksPortEnd     fact.Code = "shorthand/lacks-port-end"
	LacksLeadLength  fact.Code = "shorthand/lacks-lead-length"
	LacksSupply      fact.Code = "shorthand/lacks-supply"
	LacksMake        fact.Code = "shorthand/lacks-make"
	LacksHolds       fact.Code = "shorthand/lacks-holds"
	LacksFits        fact.Code = "shorthand/lacks-fits"
	LacksThread      fact.Code = "shorthand/lacks-thread"

	PortsOfWhat  fact.Code = "shorthand/ports-of-what"
	HowManyPorts fact.Code = "shorthand/how-many-ports"
	HowWide      fact.Code = "shorthand/how-wide"
	SwitchOrNot  fact.Code = "shorthand/switch-or-not"
	WhichLanes   fact.Code = "shorthand/which-lanes"
	WhichUSB     fact.Code = "shorthand/which-usb"
	WhichPlug    fact.Code = "shorthand/which-plug"
	WhichPlugs   fact.Code = "shorthand/which-plugs"
	HowManyPlugs fact.Code = "shorthand/how-many-plugs"
	WhichThread  fact.Code = "shorthand/which-thread"

	EdgeOrM2         fact.Code = "shorthand/edge-or-m2" // two words
	LanesForEach     fact.Code = "shorthand/lanes-for-each"
	TooManyPositions fact.Code = "shorthand/too-many-positions" // how many, lanes of each, lanes there are
)

// Labels of the fields of forms.
const (
	FieldBayHeight  fact.Code = "shorthand/field-bay-height"
	FieldBays       fact.Code = "shorthand/field-bays"
	FieldBracket    fact.Code = "shorthand/field-bracket"
	FieldCapacity   fact.Code = "shorthand/field-capacity"
	FieldCardLength fact.Code = "shorthand/field-card-length"
	FieldChip       fact.Code = "shorthand/field-chip"
	FieldClock      fact.Code = "shorthand/field-clock"
	FieldECC        fact.Code = "shorthand/field-ecc"
	FieldEach       fact.Code = "shorthand/field-each"
	FieldEdge       fact.Code = "shorthand/field-edge"
	FieldEnds       fact.Code = "shorthand/field-ends"
	FieldFirstLanes fact.Code = "shorthand/field-first-lanes"
	FieldForm       fact.Code = "shorthand/field-form"
	FieldLeadPlugs  fact.Code = "shorthand/field-lead-plugs"
	FieldOfSupply   fact.Code = "shorthand/field-of-supply"
	FieldFromTo     fact.Code = "shorthand/field-from-to"
	FieldGen        fact.Code = "shorthand/field-gen"
	FieldHeatsink   fact.Code = "shorthand/field-heatsink"
	FieldHeight     fact.Code = "shorthand/field-height"
	FieldHolds      fact.Code = "shorthand/field-holds"
	IntoSlot        fact.Code = "shorthand/into-slot"
	NotKnown        fact.Code = "shorthand/not-known"
	FieldInto       fact.Code = "shorthand/field-into"
	FieldKeys       fact.Code = "shorthand/field-keys"
	FieldKind       fact.Code = "shorthand/field-kind"
	FieldLanes      fact.Code = "shorthand/field-lanes"
	FieldLatency    fact.Code = "shorthand/field-latency"
	FieldLeadLength fact.Code = "shorthand/field-lead-length"
	FieldMake       fact.Code = "shorthand/field-make"
	FieldMedia      fact.Code = "shorthand/field-media"
	FieldOpenings   fact.Code = "shorthand/field-openings"
	FieldPinOff     fact.Code = "shorthand/field-pin-off"
	FieldPlaces     fact.Code = "shorthand/field-places"
	FieldPlugs      fact.Code = "shorthand/field-plugs"
	FieldPosts      fact.Code = "shorthand/field-posts"
	FieldProfile    fact.Code = "shorthand/field-profile"
	FieldQueues     fact.Code = "shorthand/field-queues"
	FieldRanks      fact.Code = "shorthand/field-ranks"
	FieldReads      fact.Code = "shorthand/field-reads"
	FieldRegister   fact.Code = "shorthand/field-register"
	FieldSides      fact.Code = "shorthand/field-sides"
	FieldSize       fact.Code = "shorthand/field-size"
	FieldSpeaks     fact.Code = "shorthand/field-speaks"
	FieldSpeed      fact.Code = "shorthand/field-speed"
	FieldSupply     fact.Code = "shorthand/field-supply"
	FieldThread     fact.Code = "shorthand/field-thread"
	FieldTop        fact.Code = "shorthand/field-top"
	FieldTranslates fact.Code = "shorthand/field-translates"
	FieldTrim       fact.Code = "shorthand/field-trim"
	FieldTurns      fact.Code = "shorthand/field-turns"
	FieldUSB        fact.Code = "shorthand/field-usb"
	FieldUnder      fact.Code = "shorthand/field-under"
	FieldUse        fact.Code = "shorthand/field-use"
	FieldVolts      fact.Code = "shorthand/field-volts"
	FieldWatts      fact.Code = "shorthand/field-watts"
	FieldWired      fact.Code = "shorthand/field-wired"
)
