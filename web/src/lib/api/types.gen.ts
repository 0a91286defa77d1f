/* Generated from docs/schema/api.schema.json by `make generate`; do not edit. */

/**
 * the shop's, where practitioners differ, as it was taken into the job
 */
export type Practice = Held[];
/**
 * what hands did and what was said of drives, over all stages, oldest first
 */
export type Record = Event[];
/**
 * Practice is what a shop chose; what is absent is as usual.
 */
export type Practice1 = Held[];
/**
 * Practice is what a shop chose; what is absent is as usual.
 */
export type Practice2 = Held[];

/**
 * API names every document that crosses the wire, so that one schema and one set of TypeScript types cover them.
 */
export interface API {
	jobs: JobList;
	jobView: JobView;
	newJob: NewJob;
	change: ChangeRequest;
	undo: UndoRequest;
	problem: ProblemDoc;
	sheets: SheetName[];
	layouts: Sheet[];
	sheetView: SheetView;
	pictures: SheetPicture[];
	sheetCheck: SheetCheck;
	putSheet: PutSheet;
	parts: Part[];
	offers: Offer[];
	plan: PlanQuestion;
	advice: Advice;
	whyNot: WhyNot;
	keep: Keep;
	keepProven: KeepProven;
	bench: BenchView;
	practice: PracticeView;
	putPractice: PutPractice;
	keepDifference: KeepDifference;
	keepPart: KeepPart;
	newerSheet: NewerSheet;
	atRevision: AtRevision;
	need: Need;
	shopping: Shopping;
	because: Because;
	happened: Happened;
	shelf: ShelfList;
	quickAdd: QuickAdd;
	restock: Restock;
	back: Back;
	shelfLog: Entry[];
	csvReport: CSVReport;
	imported: Imported;
	progress: Progress;
	owner: OwnerJobs;
	forget: Forget;
	forgotten: Forgotten;
	gone: Gone[];
	health: Health;
	reply: Reply;
	written: Written[];
	intake: Intake;
	form: ShortForm;
	formAsked: FormQuestion;
	fits: Fit[];
	check: Check;
	observation: Observation;
	trouble: TroubleView;
	drafted: Drafted;
	simView: SimView;
	simAction: SimAction;
	invitation: Invitation;
	gains: Gains;
	seriesRead: SeriesRead;
	arrays: ArrayChoices;
	volumes: Volumes;
	divided: Divided;
	transfers: Transfers;
	logbook: LogbookPage;
	life: LifeView;
	model: ModelView;
	figures: Figures;
}
/**
 * JobList is a page of the bench: open jobs first, the latest change first.
 */
export interface JobList {
	jobs: JobCard[];
	/**
	 * in all
	 */
	open: number;
	/**
	 * in all
	 */
	closed: number;
	/**
	 * what is due earlier is late
	 */
	today: string;
	says: string;
	/**
	 * where the next page begins
	 */
	next?: string;
}
/**
 * JobCard is a job as the bench lists it.
 */
export interface JobCard {
	id: string;
	title: string;
	tag: string;
	owner: string;
	wish: string;
	sheet: string;
	class: 'tower' | 'small form factor' | 'mini PC' | 'thin client' | 'workstation' | 'unknown';
	arrived: string;
	stands?: string;
	due?: string;
	updated: string;
	revision: number;
	status: Status;
	/**
	 * why nothing can be said of it: it cannot be read or judged
	 */
	ill?: string;
}
/**
 * Status is where a job stands.
 */
export interface Status {
	stage: 'fit' | 'work order' | 'prove' | 'hand over' | 'closed';
	verdict: Judgement;
	/**
	 * what it waits for
	 */
	waits: string;
	/**
	 * the one next action, as a button says it
	 */
	next: string;
	/**
	 * the screen on which it is done
	 */
	go: 'fit' | 'work order' | 'prove' | 'hand over' | 'closed';
	/**
	 * the plan is stopped
	 */
	stops: boolean;
	/**
	 * steps done
	 */
	done: number;
	steps: number;
	/**
	 * of the stage at work, where there are several
	 */
	name?: string;
	/**
	 * which that is
	 */
	at?: number;
	/**
	 * of how many
	 */
	of?: number;
}
/**
 * of the plan, then of the work
 */
export interface Judgement {
	grade: 'good' | 'warns' | 'unknown' | 'stops';
	says: string;
	why?: string;
}
/**
 * JobView is one job with everything the core says about it.
 */
export interface JobView {
	revision: number;
	updated: string;
	view: View;
	journal: Entry[];
	/**
	 * what the last change made different
	 */
	changed: Changed[];
}
/**
 * View is a job with everything the core says about it.
 */
export interface View {
	job: Job;
	status: Status;
	found: Resolved;
	planned: Resolved;
	order: Step[];
	/**
	 * of the machine as it stands, fitted parts among them
	 */
	layers: Layer[];
	tray: Cell[];
	/**
	 * what is off now, in the order in which it came off
	 */
	off: Off[];
	pick: PickLine[];
	/**
	 * where the work stands, for somebody who goes on with it
	 */
	stands: string[];
	incidents: Mishap[];
	differs: Observed[];
	stuck: Observed[];
	lines: Line[];
	/**
	 * how many lines are to read, agree, differ and are explained
	 */
	read: string;
	/**
	 * what the screens showed as the machine came
	 */
	before: Line[];
	variants: Variant[];
	report: Report;
	/**
	 * what was looked up at the bench
	 */
	looked: LookedUp[];
	/**
	 * what holds the work back besides the rules of fit
	 */
	blocks: Block[];
	starts?: string;
	/**
	 * none where there is but one
	 */
	stages: StageOf[];
	/**
	 * the stage that is looked at
	 */
	at: number;
	/**
	 * what is not known of what is fitted anew, and was taken as it nearly always is
	 */
	usual: Missing[];
}
/**
 * Job is one machine on the bench.
 */
export interface Job {
	format: 'deepbay/job';
	version: 1;
	id: string;
	/**
	 * the machine as its owner calls it
	 */
	title: string;
	/**
	 * the shop's tag or the machine's serial number
	 */
	tag?: string;
	owner?: string;
	arrived?: string;
	/**
	 * where the machine is: "bench 2", "rack, lower shelf"
	 */
	stands?: string;
	/**
	 * when it is to be ready
	 */
	due?: string;
	wish?: Wish;
	/**
	 * which is fitted, where the sheet lists several
	 */
	processor?: string;
	sheet: Sheet;
	/**
	 * @maxItems 200
	 */
	parts: Part[];
	/**
	 * @maxItems 200
	 */
	items: Item[];
	/**
	 * a new machine with nothing in it, which never ran
	 */
	fresh?: boolean;
	practice?: Practice;
	/**
	 * @maxItems 16
	 */
	arrays?: DriveArray[];
	found: Setup;
	planned: Setup;
	/**
	 * what was looked up at the bench
	 *
	 * @maxItems 1000
	 */
	looked?: Looked[];
	/**
	 * @maxItems 1000
	 */
	done: Tick[];
	/**
	 * @maxItems 1000
	 */
	tests?: TestRun[];
	/**
	 * what its screens showed as it came
	 *
	 * @maxItems 2000
	 */
	before?: Reading[];
	/**
	 * @maxItems 2000
	 */
	seen: Reading[];
	/**
	 * @maxItems 2000
	 */
	explained: Explanation[];
	/**
	 * what the stage at work is for; empty where there is but one
	 */
	stage?: string;
	/**
	 * stages that are finished, oldest first
	 *
	 * @maxItems 40
	 */
	past?: PastStage[];
	/**
	 * stages that are to come
	 *
	 * @maxItems 8
	 */
	later?: LaterStage[];
	/**
	 * @maxItems 1000
	 */
	accepted?: Acceptance[];
	/**
	 * what happened to fasteners
	 *
	 * @maxItems 200
	 */
	incidents?: Incident[];
	/**
	 * in what the machine is not as its sheet says
	 *
	 * @maxItems 200
	 */
	differs?: Difference[];
	/**
	 * what was tried and does not go
	 *
	 * @maxItems 200
	 */
	stuck?: Stuck[];
	/**
	 * that the machine told of last and nobody expected
	 *
	 * @maxItems 500
	 */
	strange?: Strange[];
	/**
	 * while a fault is looked for
	 *
	 * @maxItems 200
	 */
	checked?: Checked[];
	/**
	 * that followed the first start
	 *
	 * @maxItems 50
	 */
	cures?: Mending[];
	/**
	 * before the work and after it
	 *
	 * @maxItems 500
	 */
	measured?: Series[];
	/**
	 * volumes that blank drives get
	 *
	 * @maxItems 64
	 */
	layouts?: Layout[];
	/**
	 * data that comes from old drives onto new ones
	 *
	 * @maxItems 32
	 */
	transfers?: Transfer[];
	/**
	 * drives that were taken out and wiped
	 *
	 * @maxItems 500
	 */
	wiped?: Wiped[];
	hands?: Record;
	agreed?: Agreement;
	closed?: Closing;
}
/**
 * Wish is what the owner asked for, as far as it can be checked.
 */
export interface Wish {
	/**
	 * in their words
	 */
	text?: string;
	/**
	 * at least this much memory
	 */
	memoryBytes?: number;
	/**
	 * a system drive of at least this
	 */
	systemBytes?: number;
	/**
	 * the system uses no more memory than this (its edition, or 32 bit)
	 */
	systemMaxBytes?: number;
	/**
	 * and over PCIe
	 */
	systemFast?: boolean;
	/**
	 * must stay in the machine and be seen
	 *
	 * @maxItems 64
	 */
	keep?: string[];
	/**
	 * what must not be wiped or changed, in words
	 */
	untouched?: string;
	/**
	 * where the backup is, "" is not known
	 */
	backedUp?: string;
	/**
	 * a recovery key is needed before settings change
	 */
	encrypted?: boolean;
	starts?: Start;
	/**
	 * beyond what the work calls for by itself
	 *
	 * @maxItems 3
	 */
	tests?: ('memory' | 'load' | 'self-test')[];
}
/**
 * what starts the machine afterwards, where that was said
 */
export interface Start {
	how?: 'install' | 'copy' | 'disk' | 'nothing';
	item?: string;
	array?: string;
}
/**
 * Sheet is one model of machine.
 */
export interface Sheet {
	format: 'deepbay/sheet';
	version: 1;
	id: string;
	name: string;
	class: 'tower' | 'small form factor' | 'mini PC' | 'thin client' | 'workstation' | 'unknown';
	/**
	 * the manual and edition the sheet was typed from
	 */
	source?: string;
	board: Board;
	chassis?: Chassis;
	firmware?: Firmware;
	/**
	 * where it matters which one is fitted
	 *
	 * @maxItems 64
	 */
	processors?: Processor[];
	/**
	 * @minItems 1
	 * @maxItems 16
	 */
	roots: [Root, ...Root[]];
	/**
	 * @maxItems 64
	 */
	groups: Group[];
	/**
	 * @minItems 1
	 * @maxItems 512
	 */
	sockets: [Socket, ...Socket[]];
	/**
	 * places for drives, apart from the ports their data comes from
	 *
	 * @maxItems 64
	 */
	bays?: Bay[];
	/**
	 * what lies over what; none is not stated
	 *
	 * @maxItems 64
	 */
	layers?: Layer[];
	/**
	 * @maxItems 64
	 */
	settings: Setting[];
	/**
	 * @maxItems 512
	 */
	rules: Rule[];
	memory: Memory;
}
/**
 * Board is the outline everything is placed on, seen with the rear panel at the left.
 */
export interface Board {
	widthMM: number;
	heightMM: number;
}
/**
 * Chassis says how the machine opens.
 */
export interface Chassis {
	/**
	 * how the cover comes off, one sentence
	 */
	cover?: string;
	/**
	 * the longest card that goes in
	 */
	cardMM?: number;
	/**
	 * its slots take low brackets only
	 */
	lowProfileSlots?: boolean;
	/**
	 * free power plugs
	 *
	 * @maxItems 16
	 */
	plugs?: PlugCount[];
	/**
	 * the model of its power supply, as printed on it
	 */
	supply?: string;
	/**
	 * its SATA plugs carry 3.3 V, which holds drives with the power-disable pin off
	 */
	feeds3V3?: boolean;
	/**
	 * supply with a three-pin lead and its own switch
	 */
	earthed?: boolean;
	weightKG?: number;
}
/**
 * PlugCount is how many free plugs of one kind there are. Zero is a statement: none. Those in use as the machine is delivered are another number.
 */
export interface PlugCount {
	kind: 'sata' | 'slimline sata' | '4-pin peripheral' | '6-pin' | '8-pin' | '12V-2x6';
	count: number;
	inUse?: number;
	/**
	 * what the leads with these plugs may carry together
	 */
	watts?: number;
	/**
	 * where they come from, if not from the supply: "a lead of the board's own"
	 */
	from?: string;
}
/**
 * Firmware says how to reach the set-up screens.
 */
export interface Firmware {
	setupKey?: string;
	bootKey?: string;
	/**
	 * can start a system from a PCIe drive
	 */
	startsPCIe?: boolean;
	version?: string;
}
/**
 * Processor is one processor a board takes; rules say what differs with it.
 */
export interface Processor {
	id: string;
	name: string;
	/**
	 * brings graphics of its own
	 */
	graphics?: boolean;
	/**
	 * the largest module its memory controller addresses: beyond is not a trial, it cannot be
	 */
	moduleBytes?: number;
	/**
	 * and all of them together
	 */
	totalBytes?: number;
}
/**
 * Root is where lanes start.
 */
export interface Root {
	id: string;
	name: string;
	kind: 'cpu' | 'chipset';
	place: Place;
	uplink?: Uplink;
}
/**
 * Place is a rectangle on the board in millimetres, from its top left corner.
 */
export interface Place {
	xMM: number;
	yMM: number;
	widthMM: number;
	heightMM: number;
}
/**
 * every root but the processor hangs on one
 */
export interface Uplink {
	to: string;
	gen?: number;
	lanes?: 1 | 2 | 4 | 8 | 16;
}
/**
 * Group is lanes of one root that are dealt out together.
 */
export interface Group {
	id: string;
	root: string;
	lanes: number;
}
/**
 * Socket is one place a part goes into.
 */
export interface Socket {
	id: string;
	kind: 'm2' | 'pcie' | 'sata' | 'u2' | 'dimm' | 'sodimm' | 'usb';
	place: Place;
	/**
	 * in words: "upper, below the processor"
	 */
	where?: string;
	/**
	 * Electrical side. Group feeds PCIe lanes; Root is given where no lanes are dealt out (SATA ports, memory slots).
	 */
	group?: string;
	root?: string;
	protocols?: ('pcie' | 'sata' | 'usb')[];
	gen?: number;
	lanes?: 1 | 2 | 4 | 8 | 16;
	/**
	 * in its group; lanes that two sockets claim need a rule that takes them from one
	 */
	firstLane?: number;
	/**
	 * how firmware can divide a slot; silent means it cannot
	 *
	 * @maxItems 16
	 */
	splits?: number[][];
	sataGen?: number;
	/**
	 * the fastest mode of a USB port
	 */
	usb?:
		| '2.0'
		| '3.2 Gen 1'
		| '3.2 Gen 1x2'
		| '3.2 Gen 2'
		| '3.2 Gen 2x2'
		| 'USB4 Gen 2x2'
		| 'USB4 Gen 3x2'
		| 'USB4 Gen 4x2';
	/**
	 * Mechanical side, by kind.
	 */
	key?: 'A' | 'B' | 'E' | 'M';
	/**
	 * at which end of its place an M.2 card's contacts go in; its post stands towards the other
	 */
	contacts?: 'rear' | 'front' | 'upper' | 'lower';
	lengthsMM?: number[];
	/**
	 * the widest M.2 card there is room for
	 */
	widthMM?: 22 | 25 | 30;
	/**
	 * the board brings one for this socket
	 */
	heatsink?: boolean;
	physicalLanes?: 1 | 4 | 8 | 16;
	/**
	 * longer cards go in over the end
	 */
	openEnded?: boolean;
	/**
	 * rear opening, counted away from the processor
	 */
	opening?: number;
	/**
	 * free height above an M.2 card's board, or over a memory slot under the cooler
	 */
	clearTopMM?: number;
	/**
	 * free height below it: parts on the under side need it
	 */
	clearBottomMM?: number;
	/**
	 * what is left of clearTopMM when a card lies over it
	 */
	clearUnderCardMM?: number;
	/**
	 * the rear opening whose card lies over this socket
	 */
	underOpening?: number;
	/**
	 * what the bay takes
	 */
	drives?: ('m2' | '2.5in' | '3.5in' | 'u2' | 'slim' | '5.25in')[];
	/**
	 * the tallest drive of the bay
	 */
	bayHeightMM?: number;
	/**
	 * the plug that reaches the bay, where it is not a SATA plug
	 */
	power?: 'sata' | 'slimline sata' | '4-pin peripheral' | '6-pin' | '8-pin' | '12V-2x6';
	/**
	 * the end of a data lead the bay has room for
	 */
	leadEnd?: 'straight' | 'angled';
	/**
	 * how the bay holds a drive
	 */
	holder?: 'screws' | 'bracket' | 'caddy';
	/**
	 * the bracket or caddy is in the machine
	 */
	holderThere?: boolean;
	/**
	 * of the screws kept with the bay
	 */
	thread?: 'M3' | '6-32';
	/**
	 * a data lead lies ready at this port
	 */
	lead?: boolean;
	/**
	 * memory slots only
	 */
	channel?: string;
	told?: Told;
}
/**
 * where the running machine told of it
 */
export interface Told {
	gen?: number;
	lanes?: 1 | 2 | 4 | 8 | 16;
	physicalLanes?: 1 | 4 | 8 | 16;
	key?: 'A' | 'B' | 'E' | 'M';
	channel?: string;
}
/**
 * Bay is a place for a drive. Leads reach it from ports; a drive in it may hang on any port, and moving its lead to another does not move the drive.
 */
export interface Bay {
	id: string;
	/**
	 * in words: "lower cage, at the front"
	 */
	where?: string;
	/**
	 * whose data leads reach it as the machine is built; none is any
	 *
	 * @maxItems 64
	 */
	ports?: string[];
	/**
	 * what the bay takes
	 */
	drives?: ('m2' | '2.5in' | '3.5in' | 'u2' | 'slim' | '5.25in')[];
	/**
	 * the tallest drive of the bay
	 */
	bayHeightMM?: number;
	/**
	 * the plug that reaches the bay, where it is not a SATA plug
	 */
	power?: 'sata' | 'slimline sata' | '4-pin peripheral' | '6-pin' | '8-pin' | '12V-2x6';
	/**
	 * the end of a data lead the bay has room for
	 */
	leadEnd?: 'straight' | 'angled';
	/**
	 * how the bay holds a drive
	 */
	holder?: 'screws' | 'bracket' | 'caddy';
	/**
	 * the bracket or caddy is in the machine
	 */
	holderThere?: boolean;
	/**
	 * of the screws kept with the bay
	 */
	thread?: 'M3' | '6-32';
}
/**
 * Layer is one thing that lies over others.
 */
export interface Layer {
	id: string;
	/**
	 * with its article left out: "fan duct"
	 */
	name: string;
	kind:
		| 'cover'
		| 'bezel'
		| 'shell'
		| 'cage'
		| 'bracket'
		| 'shroud'
		| 'fan duct'
		| 'card'
		| 'shield'
		| 'cooler'
		| 'heatsink'
		| 'board'
		| 'supply'
		| 'drive'
		| 'foot';
	where?: string;
	outline?: Outline;
	/**
	 * from which it is taken off; what it hides can be reached from another side too
	 */
	side?: 'top' | 'bottom' | 'front' | 'rear' | 'left' | 'right';
	/**
	 * must be off first
	 *
	 * @maxItems 64
	 */
	after?: string[];
	/**
	 * hides everything inside
	 */
	all?: boolean;
	/**
	 * sockets and bays that cannot be reached while it is on
	 *
	 * @maxItems 512
	 */
	hides?: string[];
	/**
	 * that can, but it is tight
	 *
	 * @maxItems 512
	 */
	crowds?: string[];
	/**
	 * the leads of the drives it holds come out with it
	 */
	leadsAlong?: boolean;
	/**
	 * bays that come out with it: drives are loaded while it is out
	 *
	 * @maxItems 64
	 */
	holds?: string[];
	/**
	 * it is whatever lies in this socket or bay, and is not there where nothing does
	 */
	in?: string;
	/**
	 * all must be undone
	 *
	 * @maxItems 32
	 */
	fasteners?: Fastener[];
	/**
	 * tabs, clips and latches
	 *
	 * @maxItems 16
	 */
	catches?: Catch[];
	/**
	 * how it comes away, in order
	 *
	 * @maxItems 8
	 */
	moves?: Motion[];
	/**
	 * that must be undone
	 *
	 * @maxItems 32
	 */
	leads?: Lead[];
	/**
	 * besides the drivers of its fasteners
	 *
	 * @maxItems 8
	 */
	tools?: string[];
	/**
	 * to take it off
	 */
	minutes?: number;
	risk?: 'low' | 'some' | 'high';
	/**
	 * what can break or hurt
	 */
	caution?: string;
	/**
	 * it swings aside on its hinge and hangs there
	 */
	stays?: boolean;
	/**
	 * it does not come off
	 */
	fixed?: boolean;
	/**
	 * the machine must not run, or does not start, without it: a cover switch, the air
	 */
	runsWith?: boolean;
	/**
	 * as machines of this class mostly are: nobody looked at this one
	 */
	typical?: boolean;
}
/**
 * as seen on the board, for drawings
 */
export interface Outline {
	xMM: number;
	yMM: number;
	widthMM: number;
	heightMM: number;
}
/**
 * Fastener is screws of one kind in one layer.
 */
export interface Fastener {
	count: number;
	bit?:
		| 'by hand'
		| 'PH00'
		| 'PH0'
		| 'PH1'
		| 'PH2'
		| 'T5'
		| 'T6'
		| 'T8'
		| 'T10'
		| 'T15'
		| 'T20'
		| 'flat 3 mm'
		| 'flat 5.5 mm'
		| 'hex 2 mm'
		| 'hex nut 5 mm';
	thread?: 'M1.6' | 'M2' | 'M2.5' | 'M3' | 'M3.5' | 'M4' | '6-32' | 'self-tapping' | 'push rivet';
	/**
	 * of the thread
	 */
	lengthMM?: number;
	/**
	 * backs off and stays in its layer
	 */
	captive?: boolean;
	/**
	 * "under the left front foot"
	 */
	where?: string;
	/**
	 * one for each, for drawings
	 *
	 * @maxItems 64
	 */
	at?: Point[];
	/**
	 * how hard, in the manual's words
	 */
	torque?: string;
}
/**
 * Point is a point on the drawing of the board, in millimetres from its top left corner; it may lie beyond the board's edges.
 */
export interface Point {
	xMM: number;
	yMM: number;
}
/**
 * Catch holds a layer without a screw.
 */
export interface Catch {
	kind: 'tab' | 'clip' | 'latch' | 'lock' | 'adhesive';
	count?: number;
	where?: string;
	/**
	 * @maxItems 64
	 */
	at?: Point[];
	/**
	 * pressed or drawn that way to let go
	 */
	toward?: 'top' | 'bottom' | 'front' | 'rear' | 'left' | 'right';
}
/**
 * Motion is one stretch of the way a layer comes off.
 */
export interface Motion {
	how: 'lift' | 'slide' | 'swing' | 'tilt' | 'pull';
	toward?: 'top' | 'bottom' | 'front' | 'rear' | 'left' | 'right';
	byMM?: number;
}
/**
 * Lead ties a layer to the rest.
 */
export interface Lead {
	/**
	 * what it is: "front panel light"
	 */
	for: string;
	plug?:
		| 'friction'
		| 'latch'
		| 'flip lock'
		| 'slide lock'
		| 'coax'
		| 'SATA data'
		| 'SATA power'
		| 'card power';
	/**
	 * where its plug is
	 */
	where?: string;
	at?: Point;
	/**
	 * layers that hide its plug; its own too, where it is undone once that is lifted
	 *
	 * @maxItems 32
	 */
	under?: string[];
	undone?: 'first' | 'lifting';
	again?: 'before' | 'after';
	/**
	 * how far its layer can be moved away with it on
	 */
	lengthMM?: number;
}
/**
 * Setting is one firmware choice in this machine's own words.
 */
export interface Setting {
	id: string;
	/**
	 * as the screen prints it
	 */
	name: string;
	/**
	 * what it is for; silent, its rules tell
	 */
	role?:
		| 'storage-mode'
		| 'remapping'
		| 'socket-mode'
		| 'slot-split'
		| 'link-speed'
		| 'memory-profile'
		| 'pcie-start'
		| 'legacy-start'
		| 'secure-start'
		| 'boot-order';
	/**
	 * the way through the menus
	 */
	where?: string;
	/**
	 * what a change can break
	 */
	caution?: string;
	/**
	 * @minItems 2
	 * @maxItems 32
	 */
	options: [Option, Option, ...Option[]];
	/**
	 * absent is not stated: then what it is set to is looked up
	 */
	default?: string;
}
/**
 * Option is one value of a setting.
 */
export interface Option {
	value: string;
	/**
	 * as the screen prints it
	 */
	name: string;
}
/**
 * Rule is one footnote of the manual: when all conditions hold, all effects apply.
 */
export interface Rule {
	id: string;
	/**
	 * @minItems 1
	 * @maxItems 16
	 */
	when: [Condition, ...Condition[]];
	/**
	 * @minItems 1
	 * @maxItems 32
	 */
	then: [Effect, ...Effect[]];
	/**
	 * the manual's place or words
	 */
	says?: string;
}
/**
 * Condition asks what a socket holds, which value a setting has, or which processor is fitted: exactly one of them.
 */
export interface Condition {
	processor?: string;
	socket?: string;
	holds?: 'anything' | 'pcie' | 'sata';
	setting?: string;
	is?: string;
}
/**
 * Effect narrows one socket, or lets memory run at its profile. Effects only ever take away, so several on one socket combine in any order.
 */
export interface Effect {
	socket?: string;
	off?: boolean;
	maxLanes?: 1 | 2 | 4 | 8 | 16;
	maxGen?: number;
	/**
	 * only these remain
	 */
	protocols?: ('pcie' | 'sata' | 'usb')[];
	/**
	 * a slot is divided like this, from its first lane on
	 *
	 * @maxItems 16
	 */
	split?: number[];
	/**
	 * modules run at their stored profile
	 */
	memoryProfile?: boolean;
}
/**
 * Memory says what the memory slots take together.
 */
export interface Memory {
	generation?: 'ddr2' | 'ddr3' | 'ddr4' | 'ddr5';
	/**
	 * takes registered modules, and only those
	 */
	registered?: boolean;
	/**
	 * uses the check bits of modules that have them
	 */
	ecc?: boolean;
	/**
	 * feeds its modules with this
	 */
	millivolts?: number;
	/**
	 * runs DDR5 modules that bring a clock driver, with it on
	 */
	clockDrivers?: boolean;
	module?: Limit;
	total?: Limit1;
	/**
	 * @maxItems 64
	 */
	fill?: Fill[];
	/**
	 * @maxItems 64
	 */
	speeds?: Speed[];
	/**
	 * kept by graphics in the processor
	 */
	graphicsBytes?: number;
}
/**
 * the largest single module
 */
export interface Limit {
	statedBytes?: number;
	provenBytes?: number;
	provenBy?: string;
}
/**
 * Limit is a capacity as the spec sheet states it and, where a finished job showed more, the capacity proven. Beyond both is a trial, not an error.
 */
export interface Limit1 {
	statedBytes?: number;
	provenBytes?: number;
	provenBy?: string;
}
/**
 * Fill says which slots a number of modules goes into, as printed in the manual.
 */
export interface Fill {
	/**
	 * @minItems 1
	 * @maxItems 64
	 */
	slots: [string, ...string[]];
}
/**
 * Speed is one row of the board's speed table: the fastest rate with so many modules on the fullest channel and, where the table tells them apart, so many ranks on each module.
 */
export interface Speed {
	modulesPerChannel: number;
	ranks?: number;
	rateMTps: number;
}
/**
 * Part is one kind of thing. Exactly one of drive, module, card, enclosure and fitting is given.
 */
export interface Part {
	format: 'deepbay/part';
	version: 1;
	id: string;
	/**
	 * what people call it
	 */
	name: string;
	/**
	 * part number as printed
	 */
	number?: string;
	/**
	 * what its description rests on, beside its label: a job
	 */
	source?: string;
	drive?: Drive;
	module?: Module;
	card?: Card;
	enclosure?: Enclosure;
	fitting?: Fitting;
}
/**
 * Drive is a storage drive, or a drive for optical discs.
 */
export interface Drive {
	form: 'm2' | '2.5in' | '3.5in' | 'u2' | 'slim' | '5.25in';
	/**
	 * a notch tells what goes in, not what it speaks: absent is unknown
	 */
	protocol?: 'pcie' | 'sata' | 'usb';
	capacityBytes?: number;
	media?: 'flash' | 'platter' | 'optical';
	/**
	 * PCIe or SATA generation, by protocol
	 */
	gen?: number;
	lanes?: 1 | 2 | 4;
	/**
	 * of platters
	 */
	turnsPerMinute?: number;
	/**
	 * rated, sequential
	 */
	readMBps?: number;
	/**
	 * at full load
	 */
	watts?: number;
	/**
	 * of a 2.5 or 3.5-inch drive
	 */
	heightMM?: number;
	/**
	 * 3.3 V on its power plug holds it off (SATA 3.3)
	 */
	powerDisable?: boolean;
	m2?: M2;
}
/**
 * M2 is the mechanical side of an M.2 card.
 */
export interface M2 {
	/**
	 * notches cut: B and M fits either socket
	 *
	 * @minItems 1
	 */
	keys?: ['A' | 'B' | 'E' | 'M', ...('A' | 'B' | 'E' | 'M')[]];
	lengthMM?: 30 | 42 | 52 | 60 | 80 | 110;
	widthMM?: 22 | 25 | 30;
	/**
	 * brings one of its own
	 */
	heatsink?: boolean;
	/**
	 * tallest thing on the upper side, heatsink included
	 */
	topMM?: number;
	/**
	 * tallest thing on the under side; absent with twoSided false is none
	 */
	bottomMM?: number;
	twoSided?: boolean;
}
/**
 * Module is a memory module.
 */
export interface Module {
	generation?: 'ddr2' | 'ddr3' | 'ddr4' | 'ddr5';
	form: 'dimm' | 'sodimm';
	sizeBytes?: number;
	/**
	 * base speed, without a profile
	 */
	rateMTps?: number;
	/**
	 * vendor-stored overclock profile
	 */
	profileMTps?: number;
	/**
	 * in clocks, at the printed speed
	 */
	casLatency?: number;
	ranks?: number;
	ecc?: boolean;
	registered?: boolean;
	/**
	 * DDR5 with a clock driver of its own (CUDIMM, CSODIMM)
	 */
	clockDriver?: boolean;
	/**
	 * supply voltages it runs at
	 *
	 * @maxItems 4
	 */
	millivolts?: number[];
	/**
	 * with its spreader
	 */
	heightMM?: number;
}
/**
 * Card is anything with a PCIe card edge, or an adapter with the edge of an M.2 card (then M2 is given and what concerns slots and rear openings is not).
 */
export interface Card {
	/**
	 * length of its edge
	 */
	connectorLanes?: 1 | 4 | 8 | 16;
	gen?: number;
	/**
	 * wired
	 */
	lanes?: 1 | 2 | 4 | 8 | 16;
	/**
	 * rear openings it covers
	 */
	openings?: number;
	lengthMM?: number;
	/**
	 * comes with, or is, low profile
	 */
	lowBracket?: boolean;
	/**
	 * extra power it needs, by plug
	 *
	 * @maxItems 4
	 */
	plugs?: ('sata' | 'slimline sata' | '4-pin peripheral' | '6-pin' | '8-pin' | '12V-2x6')[];
	/**
	 * at full load
	 */
	watts?: number;
	graphics?: boolean;
	/**
	 * what else it is for
	 */
	use?: 'network' | 'wireless' | 'capture' | 'sound';
	m2?: M21;
	carrier?: Carrier;
}
/**
 * M2 is the mechanical side of an M.2 card.
 */
export interface M21 {
	/**
	 * notches cut: B and M fits either socket
	 *
	 * @minItems 1
	 */
	keys?: ['A' | 'B' | 'E' | 'M', ...('A' | 'B' | 'E' | 'M')[]];
	lengthMM?: 30 | 42 | 52 | 60 | 80 | 110;
	widthMM?: 22 | 25 | 30;
	/**
	 * brings one of its own
	 */
	heatsink?: boolean;
	/**
	 * tallest thing on the upper side, heatsink included
	 */
	topMM?: number;
	/**
	 * tallest thing on the under side; absent with twoSided false is none
	 */
	bottomMM?: number;
	twoSided?: boolean;
}
/**
 * Carrier is what a card holds. A plain one wires each position to fixed lanes of the slot, and a position lives when a segment of the slot's split begins at its first lane. One with a switch chip or a controller needs no split: all positions live and share the slot's link.
 */
export interface Carrier {
	switch?: boolean;
	/**
	 * @minItems 1
	 * @maxItems 16
	 */
	positions: [Position, ...Position[]];
}
/**
 * Position is one socket of a carrier, an adapter or an enclosure.
 */
export interface Position {
	/**
	 * absent is an M.2 socket
	 */
	takes?: 'm2' | 'pcie' | 'u2' | 'sata';
	/**
	 * of the slot; without meaning behind a switch chip
	 */
	firstLane?: number;
	/**
	 * all but SATA ports
	 */
	lanes?: 1 | 2 | 4 | 8 | 16;
	/**
	 * of an enclosure's M.2 socket; elsewhere M.2 is PCIe
	 */
	protocols?: ('pcie' | 'sata' | 'usb')[];
	/**
	 * PCIe side of the bridge in an enclosure; a card has its own
	 */
	gen?: number;
	sataGen?: number;
	/**
	 * a SATA port's
	 */
	drives?: ('m2' | '2.5in' | '3.5in' | 'u2' | 'slim' | '5.25in')[];
	/**
	 * the tallest box that goes in
	 */
	bayHeightMM?: number;
	/**
	 * a slot's length
	 */
	physicalLanes?: 1 | 4 | 8 | 16;
	openEnded?: boolean;
	lengthsMM?: number[];
	/**
	 * the widest M.2 card there is room for
	 */
	widthMM?: 22 | 25 | 30;
	/**
	 * of a slot: there is room for a card where the adapter is mounted
	 */
	cardRoom?: boolean;
	heatsink?: boolean;
	clearTopMM?: number;
	clearBottomMM?: number;
}
/**
 * Enclosure is a box on a USB port. Its bridge chip translates between USB and what the drive speaks; all its drives share the one USB link.
 */
export interface Enclosure {
	/**
	 * the fastest mode of its bridge and of the cable with it
	 */
	usb?:
		| '2.0'
		| '3.2 Gen 1'
		| '3.2 Gen 1x2'
		| '3.2 Gen 2'
		| '3.2 Gen 2x2'
		| 'USB4 Gen 2x2'
		| 'USB4 Gen 3x2'
		| 'USB4 Gen 4x2';
	/**
	 * @minItems 1
	 * @maxItems 16
	 */
	positions: [Position, ...Position[]];
	/**
	 * commands are queued (UAS), not one at a time
	 */
	queues?: boolean;
	/**
	 * passes on what was deleted (TRIM)
	 */
	trims?: boolean;
	/**
	 * fed from the mains, not from the port
	 */
	ownSupply?: boolean;
	/**
	 * shows other sectors, or encrypts: the drive is unreadable without it
	 */
	translates?: boolean;
}
/**
 * Fitting is one kind of small part. Which fields have a meaning follows from the kind.
 */
export interface Fitting {
	kind: 'data lead' | 'power adapter' | 'supply lead' | 'bracket' | 'caddy' | 'spacer' | 'screws';
	/**
	 * a data lead's, at the drive
	 */
	end?: 'straight' | 'angled';
	/**
	 * and at the port
	 */
	portEnd?: 'straight' | 'angled';
	/**
	 * of a lead
	 */
	lengthMM?: number;
	/**
	 * a power adapter's, at the supply
	 */
	from?: 'sata' | 'slimline sata' | '4-pin peripheral' | '6-pin' | '8-pin' | '12V-2x6';
	/**
	 * at the drive or card; a supply lead's
	 */
	to?: 'sata' | 'slimline sata' | '4-pin peripheral' | '6-pin' | '8-pin' | '12V-2x6';
	/**
	 * how many it feeds; absent is one
	 */
	plugs?: number;
	/**
	 * the model of supply that a supply lead belongs to
	 */
	supply?: string;
	/**
	 * moulded ones from 4-pin are a known cause of fire
	 */
	crimped?: boolean;
	/**
	 * the drive of a bracket or caddy
	 */
	holds?: 'm2' | '2.5in' | '3.5in' | 'u2' | 'slim' | '5.25in';
	/**
	 * the drive whose bay it goes into
	 */
	fits?: 'm2' | '2.5in' | '3.5in' | 'u2' | 'slim' | '5.25in';
	/**
	 * of screws, or those that come with a bracket
	 */
	thread?: 'M3' | '6-32';
}
/**
 * Item is one physical piece.
 */
export interface Item {
	id: string;
	part: string;
	serial?: string;
	/**
	 * came to be fitted
	 */
	new?: boolean;
	/**
	 * what it is for once the job is done
	 */
	role?: 'system' | 'data' | 'scratch' | 'array' | 'leaves' | 'tool';
	/**
	 * what a drive holds; absent is not known
	 */
	holds?: 'blank' | 'data' | 'system';
	/**
	 * letters or mount points of the volumes on a drive, as far as somebody said
	 *
	 * @maxItems 26
	 */
	at?: string[];
	/**
	 * until when
	 */
	warranty?: string;
	/**
	 * until when it can go back to where it was bought
	 */
	returns?: string;
	/**
	 * where it went, once it was out
	 */
	fate?: 'owner' | 'shelf' | 'returned' | 'recycled';
}
/**
 * Held is a question answered.
 */
export interface Held {
	question:
		| 'earth'
		| 'slots'
		| 'more-memory'
		| 'memory-speed'
		| 'beyond-stated'
		| 'array'
		| 'heatsink'
		| 'drive-label'
		| 'old-drive'
		| 'first-start'
		| 'test'
		| 'system'
		| 'screws';
	school:
		| 'strap'
		| 'switch'
		| 'sheet'
		| 'first-third'
		| 'lower-first'
		| 'kit'
		| 'mix'
		| 'profile'
		| 'by-hand'
		| 'base'
		| 'try'
		| 'never'
		| 'apart'
		| 'striped'
		| 'mirrored'
		| 'by-load'
		| 'always'
		| 'label-stays'
		| 'label-off'
		| 'unplugged'
		| 'connected'
		| 'open'
		| 'closed'
		| 'each-kind'
		| 'at-the-end'
		| 'by-goal'
		| 'fresh'
		| 'clone'
		| 'copy'
		| 'place-order'
		| 'cups'
		| 'magnetic-mat';
}
/**
 * DriveArray is drives that are one disk together.
 */
export interface DriveArray {
	id: string;
	level: '0' | '1' | '5' | '6' | '10' | 'joined';
	/**
	 * @maxItems 32
	 */
	members: string[];
	mode?: Choice;
	by?: 'firmware' | 'system';
	/**
	 * it was there with its data as the machine came: it is kept, and never made anew
	 */
	came?: boolean;
}
/**
 * the setting that firmware needs for it
 */
export interface Choice {
	setting: string;
	value: string;
}
/**
 * Setup is what lies where, and what firmware is set to.
 */
export interface Setup {
	/**
	 * @maxItems 512
	 */
	placements: Placement[];
	/**
	 * of drives of which it was told; the others lie where they fit
	 *
	 * @maxItems 64
	 */
	bays?: Lying[];
	/**
	 * @maxItems 64
	 */
	settings: Choice1[];
}
/**
 * Placement is a piece in a place.
 */
export interface Placement {
	item: string;
	socket: string;
}
/**
 * Lying is a drive in a bay, where somebody told in which.
 */
export interface Lying {
	item: string;
	bay: string;
}
/**
 * Choice gives one setting a value.
 */
export interface Choice1 {
	setting: string;
	value: string;
}
/**
 * Looked is a fact that somebody looked up.
 */
export interface Looked {
	/**
	 * a piece: what its label says
	 */
	item?: string;
	/**
	 * a position that the piece brings, counted from 1; absent is the piece itself
	 */
	position?: number;
	/**
	 * a socket of the board: what the sheet says of it
	 */
	socket?: string;
	/**
	 * a setting of the firmware
	 */
	setting?: string;
	/**
	 * of so many modules a channel, where that matters
	 */
	modulesPerChannel?: number;
	/**
	 * of the machine as a whole where none of these is given
	 */
	attr:
		| 'key'
		| 'posts'
		| 'room beside'
		| 'room above'
		| 'room under'
		| 'room under card'
		| 'protocols'
		| 'generation'
		| 'lanes'
		| 'sata generation'
		| 'usb mode'
		| 'length'
		| 'open end'
		| 'opening'
		| 'bay'
		| 'bay height'
		| 'data lead'
		| 'bracket or caddy'
		| 'room for a card'
		| 'heatsink'
		| 'holds'
		| 'notches'
		| 'card length'
		| 'card width'
		| 'card height'
		| 'under side'
		| 'protocol'
		| 'part generation'
		| 'part lanes'
		| 'part usb mode'
		| 'drive height'
		| 'card edge'
		| 'low bracket'
		| 'memory generation'
		| 'registered'
		| 'module height'
		| 'module voltage'
		| 'module size'
		| 'module speed'
		| 'ranks'
		| 'own supply'
		| 'queues'
		| 'trims'
		| 'translates'
		| 'capacity'
		| 'board memory'
		| 'board registered'
		| 'board voltage'
		| 'board clock drivers'
		| 'board speeds'
		| 'case card length'
		| 'case low profile'
		| 'supply 3.3 V'
		| 'processor'
		| 'setting'
		| 'sata plugs'
		| 'slimline sata plugs'
		| '4-pin peripheral plugs'
		| '6-pin plugs'
		| '8-pin plugs'
		| '12V-2x6 plugs';
	is: string;
	by?: string;
	at?: string;
}
/**
 * Tick is a step that was done, or left out for a reason.
 */
export interface Tick {
	step: string;
	/**
	 * it was left out, and why
	 */
	reason?: string;
	phase?:
		| 'prepare'
		| 'power down'
		| 'open'
		| 'take out'
		| 'fit'
		| 'first power-on'
		| 'settings'
		| 'test'
		| 'system'
		| 'close';
	item?: string;
	socket?: string;
	bay?: string;
	choice?: Choice1;
	/**
	 * how long hands were at it, where somebody took the time
	 */
	seconds?: number;
	/**
	 * work inside began again afterwards: it counts no more
	 */
	over?: boolean;
	by?: string;
	at?: string;
}
/**
 * TestRun is a test that was begun, by the step that asks for it.
 */
export interface TestRun {
	step: string;
	state: 'running' | 'passed' | 'errors';
	/**
	 * how many it came through without an error
	 */
	passes?: number;
	/**
	 * what its errors were, or how long it ran
	 */
	text?: string;
	/**
	 * what it tested was changed afterwards: it counts no more
	 */
	over?: boolean;
	begun?: string;
	by?: string;
	at?: string;
}
/**
 * Reading is one line as it is or should be shown. The field that is filled follows from the line's kind; Absent says that the thing is not shown at all.
 */
export interface Reading {
	line: string;
	bytes?: number;
	rateMTps?: number;
	gen?: number;
	lanes?: number;
	/**
	 * of a USB link, all lanes together
	 */
	lineGbps?: number;
	/**
	 * a setting's option
	 */
	value?: string;
	celsius?: number;
	absent?: boolean;
	/**
	 * as typed
	 */
	raw?: string;
	/**
	 * the piece of which it was taken, where a line is about one
	 */
	item?: string;
	/**
	 * the serial number that the line shows
	 */
	serial?: string;
	/**
	 * what it proves was changed afterwards
	 */
	lapsed?: boolean;
	/**
	 * all lies and is set as it was when it was read, so it proves what it shows
	 */
	proof?: boolean;
	origin: 'expected' | 'confirmed' | 'typed' | 'probe' | 'simulated';
	by?: string;
	at?: string;
}
/**
 * Explanation says why a line that differs is right all the same.
 */
export interface Explanation {
	line: string;
	text: string;
	by?: string;
	at?: string;
}
/**
 * PastStage is a stage that is finished.
 */
export interface PastStage {
	name: string;
	found: Setup;
	planned: Setup;
	/**
	 * @maxItems 1000
	 */
	done: Tick[];
	/**
	 * @maxItems 1000
	 */
	tests?: TestRun[];
	/**
	 * @maxItems 2000
	 */
	before?: Reading[];
	/**
	 * @maxItems 2000
	 */
	seen: Reading[];
	/**
	 * @maxItems 2000
	 */
	explained: Explanation[];
	/**
	 * @maxItems 1000
	 */
	accepted?: Acceptance[];
	/**
	 * @maxItems 50
	 */
	cures?: Mending[];
	by?: string;
	at?: string;
}
/**
 * Acceptance is that somebody accepted a warning of the plan, knowing what it says. It holds while the plan has that finding.
 */
export interface Acceptance {
	code: string;
	socket?: string;
	item?: string;
	/**
	 * which loss, so that another one under the same code is not accepted with it
	 */
	loss?: string;
	by?: string;
	at?: string;
}
/**
 * Mending is something that is put right after the machine was started.
 */
export interface Mending {
	id: number;
	fault: string;
	/**
	 * that lay there then
	 */
	item?: string;
	/**
	 * the machine was closed again when it was begun
	 */
	closed?: boolean;
	by?: string;
	at?: string;
	/**
	 * all its steps are done
	 */
	ended?: string;
}
/**
 * LaterStage is a stage that is still to come.
 */
export interface LaterStage {
	name: string;
	planned: Setup;
}
/**
 * Incident is a fastener that went wrong.
 */
export interface Incident {
	id: number;
	kind: 'missing' | 'dropped' | 'stripped';
	/**
	 * at which it happened
	 */
	step?: string;
	layer?: string;
	screw?: Fastener1;
	count?: number;
	text?: string;
	by?: string;
	at?: string;
	ended?: 'found' | 'replaced' | 'agreed';
	/**
	 * who agreed to what
	 */
	reason?: string;
	endedBy?: string;
	endedAt?: string;
}
/**
 * Fastener is screws of one kind in one layer.
 */
export interface Fastener1 {
	count: number;
	bit?:
		| 'by hand'
		| 'PH00'
		| 'PH0'
		| 'PH1'
		| 'PH2'
		| 'T5'
		| 'T6'
		| 'T8'
		| 'T10'
		| 'T15'
		| 'T20'
		| 'flat 3 mm'
		| 'flat 5.5 mm'
		| 'hex 2 mm'
		| 'hex nut 5 mm';
	thread?: 'M1.6' | 'M2' | 'M2.5' | 'M3' | 'M3.5' | 'M4' | '6-32' | 'self-tapping' | 'push rivet';
	/**
	 * of the thread
	 */
	lengthMM?: number;
	/**
	 * backs off and stays in its layer
	 */
	captive?: boolean;
	/**
	 * "under the left front foot"
	 */
	where?: string;
	/**
	 * one for each, for drawings
	 *
	 * @maxItems 64
	 */
	at?: Point[];
	/**
	 * how hard, in the manual's words
	 */
	torque?: string;
}
/**
 * Difference is something in which the machine is not as its sheet says.
 */
export interface Difference {
	id: number;
	step?: string;
	/**
	 * which it is about
	 */
	layer?: string;
	text?: string;
	is?: Layer1;
	/**
	 * there is no such layer
	 */
	gone?: boolean;
	taken?: boolean;
	by?: string;
	at?: string;
}
/**
 * Layer is one thing that lies over others.
 */
export interface Layer1 {
	id: string;
	/**
	 * with its article left out: "fan duct"
	 */
	name: string;
	kind:
		| 'cover'
		| 'bezel'
		| 'shell'
		| 'cage'
		| 'bracket'
		| 'shroud'
		| 'fan duct'
		| 'card'
		| 'shield'
		| 'cooler'
		| 'heatsink'
		| 'board'
		| 'supply'
		| 'drive'
		| 'foot';
	where?: string;
	outline?: Outline;
	/**
	 * from which it is taken off; what it hides can be reached from another side too
	 */
	side?: 'top' | 'bottom' | 'front' | 'rear' | 'left' | 'right';
	/**
	 * must be off first
	 *
	 * @maxItems 64
	 */
	after?: string[];
	/**
	 * hides everything inside
	 */
	all?: boolean;
	/**
	 * sockets and bays that cannot be reached while it is on
	 *
	 * @maxItems 512
	 */
	hides?: string[];
	/**
	 * that can, but it is tight
	 *
	 * @maxItems 512
	 */
	crowds?: string[];
	/**
	 * the leads of the drives it holds come out with it
	 */
	leadsAlong?: boolean;
	/**
	 * bays that come out with it: drives are loaded while it is out
	 *
	 * @maxItems 64
	 */
	holds?: string[];
	/**
	 * it is whatever lies in this socket or bay, and is not there where nothing does
	 */
	in?: string;
	/**
	 * all must be undone
	 *
	 * @maxItems 32
	 */
	fasteners?: Fastener[];
	/**
	 * tabs, clips and latches
	 *
	 * @maxItems 16
	 */
	catches?: Catch[];
	/**
	 * how it comes away, in order
	 *
	 * @maxItems 8
	 */
	moves?: Motion[];
	/**
	 * that must be undone
	 *
	 * @maxItems 32
	 */
	leads?: Lead[];
	/**
	 * besides the drivers of its fasteners
	 *
	 * @maxItems 8
	 */
	tools?: string[];
	/**
	 * to take it off
	 */
	minutes?: number;
	risk?: 'low' | 'some' | 'high';
	/**
	 * what can break or hurt
	 */
	caution?: string;
	/**
	 * it swings aside on its hinge and hangs there
	 */
	stays?: boolean;
	/**
	 * it does not come off
	 */
	fixed?: boolean;
	/**
	 * the machine must not run, or does not start, without it: a cover switch, the air
	 */
	runsWith?: boolean;
	/**
	 * as machines of this class mostly are: nobody looked at this one
	 */
	typical?: boolean;
}
/**
 * Stuck is something that does not go as the order wants: a layer that does not come off, a piece that does not go in.
 */
export interface Stuck {
	id: number;
	step?: string;
	layer?: string;
	item?: string;
	socket?: string;
	text?: string;
	by?: string;
	at?: string;
}
/**
 * Strange is something that a machine shows and nobody expected there.
 */
export interface Strange {
	/**
	 * as it calls itself
	 */
	name: string;
	serial?: string;
	bytes?: number;
	/**
	 * as the machine names it
	 */
	place?: string;
}
/**
 * Checked is a check that was made while looking for a fault.
 */
export interface Checked {
	check: string;
	is:
		| 'unclear'
		| 'same'
		| 'starts'
		| 'gone'
		| 'as-written'
		| 'another'
		| 'home'
		| 'not-home'
		| 'clean'
		| 'dirty'
		| 'with-place'
		| 'with-piece'
		| 'turns'
		| 'silent'
		| 'clicks'
		| 'right'
		| 'wrong'
		| 'off'
		| 'on'
		| 'free'
		| 'covered'
		| 'nothing'
		| 'found'
		| 'on-the-card'
		| 'on-the-board'
		| 'closed'
		| 'open'
		| 'good'
		| 'failing'
		| 'new-enough'
		| 'too-old'
		| 'first'
		| 'starts-not'
		| 'uefi'
		| 'legacy'
		| 'online'
		| 'same-id'
		| 'not-yet'
		| 'passes'
		| 'fails'
		| '64'
		| '32';
	by?: string;
	at?: string;
}
/**
 * Series is one thing measured several times.
 */
export interface Series {
	id: number;
	what:
		| 'sequential-read'
		| 'sequential-write'
		| 'random-read'
		| 'random-write'
		| 'start'
		| 'load'
		| 'heat-idle'
		| 'heat-at-work'
		| 'sound-idle'
		| 'sound-at-work';
	when: 'before' | 'after';
	/**
	 * what is started, loaded or heard, or which volume is read
	 */
	of?: string;
	/**
	 * the drive, where one is meant
	 */
	item?: string;
	/**
	 * the array, where one is meant
	 */
	array?: string;
	/**
	 * of a rate
	 */
	blockBytes?: number;
	/**
	 * requests at once, of a rate
	 */
	depth?: number;
	/**
	 * in the unit of what is measured
	 *
	 * @minItems 1
	 * @maxItems 200
	 */
	runs: [number, ...number[]];
	/**
	 * dB(A) at the same spot with the machine off
	 *
	 * @maxItems 200
	 */
	background?: number[];
	/**
	 * the tool, and how
	 */
	with?: string;
	by?: string;
	at?: string;
}
/**
 * Layout is what is written on one blank drive, or on an array.
 */
export interface Layout {
	item?: string;
	array?: string;
	table: 'gpt' | 'mbr';
	/**
	 * logical; 0 is 512
	 */
	sectorBytes?: 512 | 4096;
	/**
	 * @minItems 1
	 * @maxItems 16
	 */
	volumes: [Volume, ...Volume[]];
}
/**
 * Volume is one volume of a drive.
 */
export interface Volume {
	/**
	 * 0 is what is left; of the last one only
	 */
	bytes?: number;
	fileSystem: 'ntfs' | 'exfat' | 'fat32' | 'ext4' | 'xfs';
	label?: string;
	/**
	 * a letter, or where it is mounted
	 */
	at?: string;
}
/**
 * Transfer is data that comes from an old drive onto a new one, with what was looked up for it.
 */
export interface Transfer {
	id: number;
	how: 'fresh' | 'clone' | 'swap';
	from: string;
	to: string;
	/**
	 * that lie on the old one; absent is not looked
	 */
	bytes?: number;
	/**
	 * of a file; absent is a few large ones
	 */
	meanFile?: number;
	/**
	 * of the old one; absent is not looked
	 */
	table?: 'gpt' | 'mbr';
	/**
	 * of the system on it; absent is not looked
	 */
	start?: 'uefi' | 'legacy';
	/**
	 * the old one; absent is not looked
	 */
	encrypted?: boolean;
	/**
	 * at which its first partition begins; absent is not looked
	 */
	firstSector?: number;
	/**
	 * both drives tell the same logical sector size; absent is not looked
	 */
	sameSectors?: boolean;
	proof?: Proof;
}
/**
 * that all of it arrived
 */
export interface Proof {
	files: number;
	bytes: number;
	/**
	 * over all names and sums, as deepbay verify prints it; absent where only counts were compared
	 */
	digest?: string;
	by?: string;
	at?: string;
}
/**
 * Wiped is that a drive was wiped, and that it was read back.
 */
export interface Wiped {
	item: string;
	level: 'clear' | 'purge' | 'destroy';
	/**
	 * before
	 */
	held?: 'blank' | 'data' | 'system';
	by?: string;
	at?: string;
}
/**
 * Event is one entry of a record. No event is ever taken out: one that is said not to have happened is named by the Voids of a later one, for bytes do not come back by a word.
 */
export interface Event {
	n: number;
	/**
	 * which step, or the name of the change
	 */
	step?: string;
	/**
	 * @maxItems 500
	 */
	effects?: Act[];
	/**
	 * the number of an event that did not happen after all
	 */
	voids?: number;
	by?: string;
	at?: string;
}
/**
 * Act is what happens to one drive.
 */
export interface Act {
	what:
		| 'puts'
		| 'takes'
		| 'disconnects'
		| 'connects'
		| 'erases'
		| 'copies'
		| 'clones'
		| 'proves'
		| 'backs up'
		| 'leaves'
		| 'returns'
		| 'removed'
		| 'says';
	item: string;
	/**
	 * of a copy: the drive it is of
	 */
	from?: string;
	/**
	 * of a copy: the number of its transfer; of a statement: of one from that drive, not proved then
	 */
	pair?: number;
	/**
	 * where a part was put
	 */
	at?: string;
	/**
	 * what its card said before
	 */
	was?: 'blank' | 'data' | 'system';
	/**
	 * and says from then on
	 */
	now?: 'blank' | 'data' | 'system';
}
/**
 * the owner, to what was done
 */
export interface Agreement {
	/**
	 * who agreed
	 */
	owner: string;
	/**
	 * who noted it
	 */
	by?: string;
	at?: string;
}
/**
 * Closing is the end of a job.
 */
export interface Closing {
	by: string;
	at: string;
	note?: string;
}
/**
 * Resolved is the whole answer, sockets in the sheet's order, then those of carriers.
 */
export interface Resolved {
	sockets: SocketState[];
	bays: BayState[];
	/**
	 * the sockets that carriers bring
	 */
	carried: Socket[];
	flows: FlowAnswer[];
	uplinks: UplinkAnswer[];
	lanes: LanesAnswer[];
	/**
	 * in the sheet's order
	 */
	settings: SettingState[];
	memory: MemoryAnswer;
	findings: Finding[];
	/**
	 * how many findings of which grade: "1 stop, 2 warnings"
	 */
	tally: string;
}
/**
 * SocketState is the answer for one socket.
 */
export interface SocketState {
	socket: string;
	state: 'free' | 'live' | 'off' | 'stopped' | 'unknown';
	item?: string;
	link?: LinkAnswer;
	/**
	 * one line: what this socket does now
	 */
	says: string;
	/**
	 * what lies in it lies in a bay, or would if one were free
	 */
	inBay?: boolean;
	because: Reason[];
}
/**
 * LinkAnswer is the link a drive runs at, or the one a free socket offers. Generation, width and rate are left out where they are not known exactly; text and rate say from what to what.
 */
export interface LinkAnswer {
	protocol?: 'pcie' | 'sata' | 'usb';
	gen?: number;
	lanes?: number;
	usb?:
		| '2.0'
		| '3.2 Gen 1'
		| '3.2 Gen 1x2'
		| '3.2 Gen 2'
		| '3.2 Gen 2x2'
		| 'USB4 Gen 2x2'
		| 'USB4 Gen 3x2'
		| 'USB4 Gen 4x2';
	/**
	 * line rate after coding, one direction
	 */
	mbps?: number;
	/**
	 * where that is not known: it is no more than this
	 */
	atMostMBps?: number;
	/**
	 * "Gen 3 x4"
	 */
	text: string;
	/**
	 * "3.94 GB/s before packet overhead"
	 */
	rate: string;
}
/**
 * Reason is one fact in the chain that leads to an answer.
 */
export interface Reason {
	from:
		| 'sheet'
		| 'part'
		| 'setting'
		| 'standard'
		| 'wish'
		| 'placement'
		| 'found'
		| 'looked'
		| 'seen'
		| 'usual';
	says: string;
}
/**
 * BayState is one bay: what lies in it, or what it takes.
 */
export interface BayState {
	bay: string;
	/**
	 * "bay low", or "the bay on SATA1"
	 */
	name: string;
	item?: string;
	/**
	 * somebody said so; else it follows
	 */
	told?: boolean;
	/**
	 * "takes 2.5 in up to 9.5 mm, leads from SATA1 and SATA2"
	 */
	says: string;
}
/**
 * FlowAnswer is what one drive can move, reading, in one direction. Where a rate on the way is not stated the figures are the most it can be, and held names it.
 */
export interface FlowAnswer {
	item: string;
	socket: string;
	aloneMBps: number;
	/**
	 * with all other drives at work
	 */
	togetherMBps: number;
	/**
	 * the least it can be, where atMost
	 */
	aloneLowMBps?: number;
	/**
	 * likewise
	 */
	togetherLowMBps?: number;
	/**
	 * what holds it then
	 */
	held: string;
	/**
	 * a rate on the way is not stated: the figures are the most it can be
	 */
	atMost?: boolean;
	says: string;
}
/**
 * UplinkAnswer is an uplink, and how full it is.
 */
export interface UplinkAnswer {
	root: string;
	/**
	 * "uplink Gen 3 x4"
	 */
	link: string;
	/**
	 * "wants 4.1 of 3.94 GB/s"; what it carries where no drive is behind it
	 */
	use: string;
	/**
	 * the drives behind it surely want more than it carries
	 */
	full?: boolean;
}
/**
 * LanesAnswer is the ledger of one group of lanes. Used and idle are left out where they are not known exactly.
 */
export interface LanesAnswer {
	group: string;
	root: string;
	dealt: number;
	used?: number;
	idle?: number;
	/**
	 * sockets that would use what is idle
	 */
	free: string[];
	says: string;
}
/**
 * SettingState is what a setting is set to, "" where nobody knows.
 */
export interface SettingState {
	setting: string;
	value?: string;
}
/**
 * MemoryAnswer is what the modules come to.
 */
export interface MemoryAnswer {
	totalBytes: number;
	/**
	 * less what graphics keeps
	 */
	usableBytes: number;
	rateMTps?: number;
	channels: ChannelAnswer[];
	regions: Region[];
	/**
	 * of evenly spread access
	 */
	peakMBps?: number;
	/**
	 * nobody has looked into some slots
	 */
	unlooked?: boolean;
	/**
	 * the next three in one line
	 */
	says: string;
	/**
	 * "32 GiB"
	 */
	total: string;
	/**
	 * "2933 MT/s", nothing where there is none
	 */
	speed: string;
	/**
	 * "dual channel, all of it"
	 */
	spread: string;
	/**
	 * "46.93 GB/s"
	 */
	peak: string;
	/**
	 * why this speed and spread
	 */
	because: Reason[];
}
/**
 * ChannelAnswer is what sits on one memory channel.
 */
export interface ChannelAnswer {
	channel: string;
	bytes: number;
	modules: number;
}
/**
 * Region is a stretch of memory spread over Ways channels.
 */
export interface Region {
	ways: number;
	bytes: number;
}
/**
 * Finding is one judgement about a rig.
 */
export interface Finding {
	code: string;
	severity: 'stops' | 'warns' | 'notes';
	socket?: string;
	item?: string;
	/**
	 * other pieces of which the same is true
	 */
	also?: Placement[];
	says: string;
	because: Reason[];
	cures: Cure[];
	missing?: Missing[];
	/**
	 * by whom, as it is now
	 */
	accepted?: string;
	/**
	 * of parts that nobody touches, as it was when the machine came
	 */
	quiet?: boolean;
}
/**
 * Cure is one way to make a finding go away; at most one is applied. Moves is empty where no placement or setting alone does it.
 */
export interface Cure {
	says: string;
	moves?: Move[];
	/**
	 * what else they change for the worse
	 */
	costs?: string[];
}
/**
 * Move is one thing changed: an item into a place (the zero Path takes it out), there into a bay where one is named, or a setting to a value.
 */
export interface Move {
	item?: string;
	socket?: string;
	bay?: string;
	setting?: string;
	value?: string;
}
/**
 * Missing is a fact that is not known and would settle a finding.
 */
export interface Missing {
	/**
	 * a piece: what its label says
	 */
	item?: string;
	/**
	 * a position that the piece brings, counted from 1; absent is the piece itself
	 */
	position?: number;
	/**
	 * a socket of the board: what the sheet says of it
	 */
	socket?: string;
	/**
	 * a setting of the firmware
	 */
	setting?: string;
	/**
	 * of so many modules a channel, where that matters
	 */
	modulesPerChannel?: number;
	/**
	 * of the machine as a whole where none of these is given
	 */
	attr:
		| 'key'
		| 'posts'
		| 'room beside'
		| 'room above'
		| 'room under'
		| 'room under card'
		| 'protocols'
		| 'generation'
		| 'lanes'
		| 'sata generation'
		| 'usb mode'
		| 'length'
		| 'open end'
		| 'opening'
		| 'bay'
		| 'bay height'
		| 'data lead'
		| 'bracket or caddy'
		| 'room for a card'
		| 'heatsink'
		| 'holds'
		| 'notches'
		| 'card length'
		| 'card width'
		| 'card height'
		| 'under side'
		| 'protocol'
		| 'part generation'
		| 'part lanes'
		| 'part usb mode'
		| 'drive height'
		| 'card edge'
		| 'low bracket'
		| 'memory generation'
		| 'registered'
		| 'module height'
		| 'module voltage'
		| 'module size'
		| 'module speed'
		| 'ranks'
		| 'own supply'
		| 'queues'
		| 'trims'
		| 'translates'
		| 'capacity'
		| 'board memory'
		| 'board registered'
		| 'board voltage'
		| 'board clock drivers'
		| 'board speeds'
		| 'case card length'
		| 'case low profile'
		| 'supply 3.3 V'
		| 'processor'
		| 'setting'
		| 'sata plugs'
		| 'slimline sata plugs'
		| '4-pin peripheral plugs'
		| '6-pin plugs'
		| '8-pin plugs'
		| '12V-2x6 plugs';
	/**
	 * "how M2_1 is keyed"
	 */
	says: string;
	/**
	 * how it must turn out for a plan: "M2_1 is keyed at M"
	 */
	if?: string;
	ask?: Question;
}
/**
 * how it is asked for; absent where it cannot be answered here
 */
export interface Question {
	kind: 'one' | 'several' | 'number' | 'size';
	unit?: 'mm' | 'MT/s' | 'opening' | 'ranks';
	options?: Possible[];
}
/**
 * Possible is one answer to what is asked.
 */
export interface Possible {
	value: string;
	says: string;
}
/**
 * Step is one thing to do and tick off.
 */
export interface Step {
	id: string;
	phase:
		| 'prepare'
		| 'power down'
		| 'open'
		| 'take out'
		| 'fit'
		| 'first power-on'
		| 'settings'
		| 'test'
		| 'system'
		| 'close';
	do: string;
	how: string[];
	cautions: Caution[];
	item?: string;
	socket?: string;
	/**
	 * how it ended is told, not ticked
	 */
	test?: 'memory' | 'load' | 'self-test';
	/**
	 * what can come of it if it is left out
	 */
	danger?: string;
	/**
	 * that it takes off or puts back, or whose lead it is
	 */
	layer?: string;
	/**
	 * of that layer, from 1 on
	 */
	lead?: number;
	/**
	 * it belongs to the way back
	 */
	shuts?: boolean;
	inside?: boolean;
	tools: string[];
	/**
	 * what must be seen before it counts as done
	 */
	see?: string;
	/**
	 * and is worth a photograph
	 */
	photo?: boolean;
	minutes: number;
	/**
	 * nobody measured that
	 */
	guess?: boolean;
	/**
	 * so many serial numbers are read off drives and their ends typed before it is done: it erases
	 */
	confirm?: number;
	/**
	 * its test runs so long by itself, roughly
	 */
	runs?: number;
	/**
	 * how each drive that it erases is told from all others, as is typed before it is done
	 */
	asks?: string[];
	/**
	 * why it must not be done as things are
	 */
	held?: string;
	/**
	 * it is held until somebody says what these drives hold
	 */
	look?: string[];
}
/**
 * Caution is what can hurt somebody or lose data at a step.
 */
export interface Caution {
	topic: string;
	says: string;
}
/**
 * Cell is a place in the tray, with fasteners of one kind.
 */
export interface Cell {
	n: number;
	/**
	 * what they came out of
	 */
	of: string;
	/**
	 * "4 screws M3 x 6 mm, cross-head 1"
	 */
	says: string;
	layer: string;
	fastener: Fastener;
	out: string;
	/**
	 * absent: they are kept with what stays off
	 */
	back?: string;
	/**
	 * they lie there now
	 */
	laid: boolean;
}
/**
 * Off is what is off now: a layer, or a lead.
 */
export interface Off {
	layer: string;
	lead?: number;
	says: string;
	/**
	 * with which it goes back
	 */
	back: string;
}
/**
 * PickLine is one thing to lay out before the machine is opened.
 */
export interface PickLine {
	sort: 'part' | 'small' | 'tool' | 'spent' | 'stick';
	says: string;
	count: number;
	/**
	 * of these, with the job or in the machine
	 */
	have: number;
	item?: string;
	/**
	 * how many more lie on the shelf
	 */
	shelf: number;
	/**
	 * it is not there, as far as the shop's stock tells
	 */
	short?: boolean;
	/**
	 * it is a part that the shelf could hold
	 */
	stocked?: boolean;
}
/**
 * Mishap is what happened to a fastener.
 */
export interface Mishap {
	id: number;
	kind: 'missing' | 'dropped' | 'stripped';
	says: string;
	text?: string;
	by?: string;
	ended?: 'found' | 'replaced' | 'agreed';
	/**
	 * no power until it is found
	 */
	holds?: boolean;
}
/**
 * Observed is in what the machine is not as its sheet says, or what was tried and does not go.
 */
export interface Observed {
	id: number;
	says: string;
	text?: string;
	by?: string;
	taken?: boolean;
	/**
	 * it can be written into the sheet
	 */
	can?: boolean;
	layer?: string;
}
/**
 * Line is one line to compare: what should be shown, in the words and numbers of the screens, and what is.
 */
export interface Line {
	id: string;
	screen: string;
	/**
	 * nobody need read it where all is as it should be
	 */
	extra?: boolean;
	/**
	 * "Memory total"
	 */
	about: string;
	item?: string;
	/**
	 * of the piece it is about
	 */
	serial?: string;
	/**
	 * this job can have changed what it shows
	 */
	touched: boolean;
	expected: string;
	/**
	 * and can be confirmed as it is
	 */
	exact: boolean;
	shows: Show[];
	/**
	 * what looks wrong and is not
	 */
	normal?: string;
	verdict: 'not asked' | 'not looked at' | 'agrees' | 'differs' | 'explained' | 'noted';
	seen?: string;
	/**
	 * what was read of it before that was changed
	 */
	was?: string;
	/**
	 * what a message proves, and what it does not
	 */
	proves?: string;
	/**
	 * what the difference is
	 */
	says?: string;
	reading?: Reading;
	/**
	 * why an explained difference is right
	 */
	reason?: string;
}
/**
 * Show is how one kind of screen prints a value.
 */
export interface Show {
	where: string;
	text: string;
}
/**
 * Variant is one way to arrange the memory, with what it comes to and the moves that lead there from the plan as it is.
 */
export interface Variant {
	name: string;
	memory: MemoryAnswer;
	slots: Placement[];
	moves: Move[];
	current: boolean;
}
/**
 * Report is what the owner takes along and the shop keeps.
 */
export interface Report {
	/**
	 * new in the machine, or moved
	 */
	fitted: Fitted[];
	/**
	 * found in it and not in the plan
	 */
	removed: Fitted[];
	stayed: Fitted[];
	set: Set[];
	seen: Line[];
	tests: TestStand[];
	leftOut: LeftOut[];
	/**
	 * what somebody still has to see to
	 */
	open: string[];
	/**
	 * steps of which nothing is said
	 */
	unsaid: string[];
	/**
	 * of the plan, that could be accepted and are not
	 */
	warnings: number;
	/**
	 * what can lose data or hurt somebody later
	 */
	cautions: string[];
	accepted: AcceptedLoss[];
	/**
	 * what the owner should know
	 */
	notes: string[];
	/**
	 * measured before and after
	 */
	gained: GainLine[];
	/**
	 * where a further drive, or more memory, would go
	 */
	room: string[];
	/**
	 * seen beyond what the sheet says
	 */
	proven: Proven[];
	/**
	 * what was done, for the owner
	 */
	plain: string[];
	/**
	 * finished before
	 */
	stages: StageReport[];
	hands: string[];
	/**
	 * first tick
	 */
	from?: string;
	/**
	 * last tick, reading or the closing
	 */
	to?: string;
}
/**
 * Fitted is one piece and its place.
 */
export interface Fitted {
	item: string;
	name: string;
	what: string;
	serial?: string;
	number?: string;
	socket?: string;
	/**
	 * moved from here
	 */
	from?: string;
	/**
	 * what it does there
	 */
	runs?: string;
	wiped?: string;
	/**
	 * what is typed of it before it counts as wiped
	 */
	asks?: string;
	/**
	 * warranty and returns
	 */
	papers?: string;
	warranty?: string;
	returns?: string;
	/**
	 * of what was taken out
	 */
	fate?: 'owner' | 'shelf' | 'returned' | 'recycled';
	/**
	 * the same in words
	 */
	went?: string;
	/**
	 * of a drive that was taken out: how it can be wiped
	 */
	ways?: WipeWay[];
}
/**
 * WipeWay is a level of wiping, and what it takes for a drive.
 */
export interface WipeWay {
	level: 'clear' | 'purge' | 'destroy';
	says: string;
	takes: string[];
}
/**
 * Set is one setting that was changed.
 */
export interface Set {
	name: string;
	from: string;
	to: string;
}
/**
 * TestStand is how a test stands.
 */
export interface TestStand {
	says: string;
	/**
	 * while it runs
	 */
	since?: string;
}
/**
 * LeftOut is a step that was left out.
 */
export interface LeftOut {
	do: string;
	reason: string;
	by: string;
}
/**
 * AcceptedLoss is a warning of the plan that somebody accepted.
 */
export interface AcceptedLoss {
	says: string;
	by: string;
	at: string;
}
/**
 * GainLine is something that was measured, in a line.
 */
export interface GainLine {
	what: string;
	says: string;
	verdict: 'better' | 'worse' | 'alike' | 'near' | 'lone';
}
/**
 * Proven is a figure beyond the sheet's that the job shows.
 */
export interface Proven {
	of: 'module' | 'memory' | 'link';
	socket?: string;
	says: string;
}
/**
 * StageReport is a finished stage on the page.
 */
export interface StageReport {
	name: string;
	by: string;
	at: string;
	report: Report;
}
/**
 * LookedUp is what somebody looked up, worded.
 */
export interface LookedUp {
	fact: Fact;
	says: string;
	by: string;
	/**
	 * what the shop keeps that it can be written into
	 */
	keeps?: 'sheet' | 'part';
	/**
	 * of that sheet or part
	 */
	id?: string;
}
/**
 * Fact is something about the machine or a piece that may be known or not: which attribute of what. It is small and compared with ==, so it can be listed once for many findings, asked for, and answered.
 */
export interface Fact {
	/**
	 * a piece: what its label says
	 */
	item?: string;
	/**
	 * a position that the piece brings, counted from 1; absent is the piece itself
	 */
	position?: number;
	/**
	 * a socket of the board: what the sheet says of it
	 */
	socket?: string;
	/**
	 * a setting of the firmware
	 */
	setting?: string;
	/**
	 * of so many modules a channel, where that matters
	 */
	modulesPerChannel?: number;
	/**
	 * of the machine as a whole where none of these is given
	 */
	attr:
		| 'key'
		| 'posts'
		| 'room beside'
		| 'room above'
		| 'room under'
		| 'room under card'
		| 'protocols'
		| 'generation'
		| 'lanes'
		| 'sata generation'
		| 'usb mode'
		| 'length'
		| 'open end'
		| 'opening'
		| 'bay'
		| 'bay height'
		| 'data lead'
		| 'bracket or caddy'
		| 'room for a card'
		| 'heatsink'
		| 'holds'
		| 'notches'
		| 'card length'
		| 'card width'
		| 'card height'
		| 'under side'
		| 'protocol'
		| 'part generation'
		| 'part lanes'
		| 'part usb mode'
		| 'drive height'
		| 'card edge'
		| 'low bracket'
		| 'memory generation'
		| 'registered'
		| 'module height'
		| 'module voltage'
		| 'module size'
		| 'module speed'
		| 'ranks'
		| 'own supply'
		| 'queues'
		| 'trims'
		| 'translates'
		| 'capacity'
		| 'board memory'
		| 'board registered'
		| 'board voltage'
		| 'board clock drivers'
		| 'board speeds'
		| 'case card length'
		| 'case low profile'
		| 'supply 3.3 V'
		| 'processor'
		| 'setting'
		| 'sata plugs'
		| 'slimline sata plugs'
		| '4-pin peripheral plugs'
		| '6-pin plugs'
		| '8-pin plugs'
		| '12V-2x6 plugs';
}
/**
 * Block holds the work back besides the rules of fit.
 */
export interface Block {
	says: string;
	moves?: Move[];
	/**
	 * it is answered by saying what starts the machine
	 */
	start?: boolean;
}
/**
 * StageOf is one stage of a job: 0 is at work, 1 and more are to come, below 0 finished.
 */
export interface StageOf {
	name: string;
	at: number;
}
/**
 * Entry is one line of a journal.
 */
export interface Entry {
	revision: number;
	at: string;
	by: string;
	says: string;
}
/**
 * Changed is one thing that a change made different.
 */
export interface Changed {
	/**
	 * which setup
	 */
	in: 'found' | 'planned';
	/**
	 * absent: memory
	 */
	socket?: string;
	turn: 'in' | 'out' | 'worse' | 'better';
	/**
	 * "Ternlight 1000, Gen 3 x4, 3.94 GB/s"
	 */
	now: string;
	/**
	 * "free, Gen 4 x4"
	 */
	was: string;
	/**
	 * what lay there and lies there no more
	 */
	left?: string;
}
/**
 * NewJob starts a job from a sheet and a wish.
 */
export interface NewJob {
	title: string;
	tag?: string;
	owner?: string;
	sheet: string;
	/**
	 * a new machine with nothing in it
	 */
	fresh?: boolean;
	wish: Wish;
	stands?: string;
	due?: string;
	/**
	 * what was found in it, as DoAdd takes it
	 */
	lines?: string;
	by?: string;
	key?: string;
}
/**
 * ChangeRequest is one change, made at a revision. The same key twice is applied once.
 */
export interface ChangeRequest {
	revision: number;
	key?: string;
	by?: string;
	change: Change;
}
/**
 * Change is one thing done to a job. Which fields it needs follows from Do.
 */
export interface Change {
	do:
		| 'place'
		| 'take out'
		| 'aside'
		| 'moves'
		| 'bay'
		| 'set'
		| 'add'
		| 'correct'
		| 'remove'
		| 'role'
		| 'array'
		| 'no array'
		| 'sheet'
		| 'schedule'
		| 'fresh'
		| 'processor'
		| 'wish'
		| 'tick'
		| 'untick'
		| 'leave out'
		| 'test'
		| 'confirm'
		| 'read'
		| 'forget'
		| 'explain'
		| 'accept'
		| 'unaccept'
		| 'add stage'
		| 'name stage'
		| 'drop stage'
		| 'next stage'
		| 'look'
		| 'unlook'
		| 'incident'
		| 'settle'
		| 'differs'
		| 'to sheet'
		| 'stuck'
		| 'unstuck'
		| 'practice'
		| 'observe'
		| 'check'
		| 'uncheck'
		| 'cure'
		| 'uncure'
		| 'measure'
		| 'unmeasure'
		| 'layout'
		| 'no layout'
		| 'wipe'
		| 'unwipe'
		| 'transfer'
		| 'no transfer'
		| 'prove'
		| 'letters'
		| 'papers'
		| 'fate'
		| 'agree'
		| 'disagree'
		| 'close'
		| 'reopen';
	in?: 'found' | 'planned';
	/**
	 * in the plan of a stage that is to come, the first of them 1
	 */
	stage?: number;
	item?: string;
	socket?: string;
	setting?: string;
	value?: string;
	/**
	 * @maxItems 200
	 */
	moves?: Move[];
	part?: Part;
	/**
	 * several, a piece of each; moves name them as plan.OnShelf does
	 *
	 * @maxItems 64
	 */
	parts?: Part[];
	/**
	 * several at once
	 *
	 * @maxItems 64
	 */
	items?: string[];
	serial?: string;
	new?: boolean;
	holds?: 'blank' | 'data' | 'system';
	/**
	 * a correction is of this piece, and of no other of its kind
	 */
	alone?: boolean;
	wish?: Wish;
	step?: string;
	/**
	 * several at once
	 *
	 * @maxItems 500
	 */
	steps?: string[];
	result?: TestRun;
	line?: string;
	/**
	 * several at once
	 *
	 * @maxItems 2000
	 */
	lines?: string[];
	/**
	 * the danger was named and seen
	 */
	sure?: boolean;
	text?: string;
	fact?: Fact;
	finding?: Acceptance;
	incident?: Incident;
	differs?: Difference;
	stuck?: Stuck;
	practice?: Practice1;
	check?: Answered;
	observation?: Observation;
	/**
	 * how long hands were at the step
	 */
	seconds?: number;
	/**
	 * @maxItems 100
	 */
	measured?: Series[];
	layout?: Layout;
	transfer?: Transfer;
	proof?: Proof1;
	array?: DriveArray;
	sheet?: Sheet;
}
/**
 * Answered is a check that was made, and what it showed.
 */
export interface Answered {
	check: string;
	is:
		| 'unclear'
		| 'same'
		| 'starts'
		| 'gone'
		| 'as-written'
		| 'another'
		| 'home'
		| 'not-home'
		| 'clean'
		| 'dirty'
		| 'with-place'
		| 'with-piece'
		| 'turns'
		| 'silent'
		| 'clicks'
		| 'right'
		| 'wrong'
		| 'off'
		| 'on'
		| 'free'
		| 'covered'
		| 'nothing'
		| 'found'
		| 'on-the-card'
		| 'on-the-board'
		| 'closed'
		| 'open'
		| 'good'
		| 'failing'
		| 'new-enough'
		| 'too-old'
		| 'first'
		| 'starts-not'
		| 'uefi'
		| 'legacy'
		| 'online'
		| 'same-id'
		| 'not-yet'
		| 'passes'
		| 'fails'
		| '64'
		| '32';
}
/**
 * Observation is what was seen, or is expected to be.
 */
export interface Observation {
	format: 'deepbay/observation';
	version: 1;
	/**
	 * @maxItems 2000
	 */
	readings: Reading[];
	machine?: Inventory;
}
/**
 * what it tells about itself
 */
export interface Inventory {
	source?: 'linux' | 'windows' | 'simulated';
	maker?: string;
	product?: string;
	serial?: string;
	board?: string;
	/**
	 * tower, mini, space-saving, ...
	 */
	chassis?: string;
	firmware?: string;
	firmwareDate?: string;
	/**
	 * it was started so
	 */
	uefi?: boolean;
	/**
	 * it is no machine of its own
	 */
	virtual?: boolean;
	processor?: string;
	memory?: MemorySeen;
	/**
	 * @maxItems 256
	 */
	slots?: SlotSeen[];
	/**
	 * @maxItems 1024
	 */
	devices?: PCIDevice[];
	/**
	 * @maxItems 256
	 */
	drives?: DriveSeen[];
	/**
	 * SATA ports, used or not
	 *
	 * @maxItems 256
	 */
	ports?: PortSeen[];
	/**
	 * @maxItems 200
	 */
	missed?: Missed[];
}
/**
 * MemorySeen is the memory as firmware's tables (SMBIOS types 16 and 17) and the system tell.
 */
export interface MemorySeen {
	usableBytes?: number;
	/**
	 * that the board takes, as its firmware states
	 */
	mostBytes?: number;
	slots?: number;
	/**
	 * its array corrects errors
	 */
	ecc?: boolean;
	/**
	 * and the system counts them
	 */
	watched?: boolean;
	/**
	 * @maxItems 256
	 */
	modules?: ModuleSeen[];
}
/**
 * ModuleSeen is one memory slot with what is in it.
 */
export interface ModuleSeen {
	/**
	 * as the board prints it
	 */
	locator?: string;
	bank?: string;
	empty?: boolean;
	bytes?: number;
	form?: 'dimm' | 'sodimm';
	soldered?: boolean;
	generation?: 'ddr2' | 'ddr3' | 'ddr4' | 'ddr5';
	/**
	 * at most
	 */
	rateMTps?: number;
	/**
	 * now
	 */
	configuredMTps?: number;
	ranks?: number;
	ecc?: boolean;
	registered?: boolean;
	maker?: string;
	number?: string;
	serial?: string;
}
/**
 * SlotSeen is a slot as firmware's tables name it (SMBIOS type 9).
 */
export interface SlotSeen {
	name?: string;
	m2?: boolean;
	key?: string;
	u2?: boolean;
	gen?: number;
	/**
	 * wired
	 */
	lanes?: number;
	physicalLanes?: number;
	inUse?: boolean;
	/**
	 * of what is in it, or of the port before it
	 */
	address?: string;
}
/**
 * PCIDevice is a PCI function that is no bridge, with its link.
 */
export interface PCIDevice {
	address: string;
	/**
	 * the port before it
	 */
	parent?: string;
	/**
	 * bridges before it: three and more are a switch
	 */
	depth?: number;
	class?: string;
	vendor?: string;
	device?: string;
	gen?: number;
	lanes?: number;
	mostGen?: number;
	mostLanes?: number;
	/**
	 * the other end, at most
	 */
	portGen?: number;
	portLanes?: number;
	/**
	 * corrected, since the start
	 */
	errors?: number;
}
/**
 * DriveSeen is a drive as the system lists it.
 */
export interface DriveSeen {
	/**
	 * nvme0n1, sda
	 */
	name?: string;
	model?: string;
	serial?: string;
	firmware?: string;
	bytes?: number;
	bus?: 'nvme' | 'sata' | 'usb' | 'sas' | 'virtual' | 'raid';
	/**
	 * platters
	 */
	turns?: boolean;
	removable?: boolean;
	/**
	 * no partition on it, no file system of the whole drive, no member of an array, no encryption
	 */
	blank?: boolean;
	/**
	 * of its PCI function
	 */
	address?: string;
	/**
	 * of its SATA controller, from 1 on
	 */
	port?: number;
	/**
	 * of its link
	 */
	gen?: number;
	lanes?: number;
	/**
	 * of a USB link
	 */
	linkMbps?: number;
	celsius?: number;
	/**
	 * of its link, since the start
	 */
	errors?: number;
}
/**
 * PortSeen is a SATA port.
 */
export interface PortSeen {
	controller?: string;
	port: number;
	/**
	 * at which it runs, 0 for none
	 */
	gen?: number;
}
/**
 * Missed is something that could not be read, and why.
 */
export interface Missed {
	/**
	 * a path, or what it is
	 */
	what: string;
	why: 'needs-root' | 'not-there' | 'damaged' | 'too-big' | 'not-a-file';
}
/**
 * Proof is that all data arrived: by a comparison of all files.
 */
export interface Proof1 {
	files: number;
	bytes: number;
	/**
	 * over all names and sums, as deepbay verify prints it; absent where only counts were compared
	 */
	digest?: string;
	by?: string;
	at?: string;
}
/**
 * UndoRequest takes the last change back.
 */
export interface UndoRequest {
	revision: number;
	key?: string;
	by?: string;
	/**
	 * also where the last change is somebody else's
	 */
	others?: boolean;
	/**
	 * what was undone last is done again
	 */
	redo?: boolean;
}
/**
 * ProblemDoc is an error for programs and people (RFC 9457). In a conflict it carries the job as it is now, the change that was refused, and what happened in between.
 */
export interface ProblemDoc {
	type: string;
	title: string;
	status: number;
	detail: string;
	errors?: Problem[];
	current?: JobView;
	yours?: Change;
	/**
	 * what yours does to the job as it is now, or why it cannot be done any more
	 */
	would?: string;
	missed?: Entry[];
	sheet?: SheetNow;
}
/**
 * Problem is one thing that keeps a document from being used. What is wrong is a fact; say fills in the words, which is what programs and people are shown.
 */
export interface Problem {
	/**
	 * RFC 6901, "" is the whole document
	 */
	pointer: string;
	/**
	 * what is wrong, one sentence without the place
	 */
	says: string;
	cure?: string;
}
/**
 * SheetNow is the other version in a conflict, with what it has differently.
 */
export interface SheetNow {
	sheet: Sheet;
	revision: number;
	differs: string[];
}
/**
 * SheetName is a sheet as lists tell of it.
 */
export interface SheetName {
	id: string;
	name: string;
	class: 'tower' | 'small form factor' | 'mini PC' | 'thin client' | 'workstation' | 'unknown';
}
/**
 * SheetView is a sheet with what an empty machine of it says, its rules in words, and its history, oldest first.
 */
export interface SheetView {
	sheet: Sheet;
	revision: number;
	empty: Resolved;
	rules: string[];
	/**
	 * what it says of each socket, to read
	 */
	facts: SocketFacts[];
	/**
	 * pages of the machine's manual
	 */
	pictures: SheetPicture[];
	history: Entry[];
}
/**
 * SocketFacts is what a sheet says of one socket, in lines to read; what it does not say has no line.
 */
export interface SocketFacts {
	socket: string;
	facts: Figure[];
}
/**
 * Figure is one number or name of an answer with what it is.
 */
export interface Figure {
	what: string;
	value: string;
	/**
	 * of a sheet's fact: how it is known, where the running machine told of it
	 */
	note?: string;
}
/**
 * SheetPicture is a page of a manual beside a sheet, or a photograph beside a job; what it shows is asked for by its id.
 */
export interface SheetPicture {
	id: string;
	says: string;
	at: string;
	by: string;
	width: number;
	height: number;
}
/**
 * SheetCheck is the judgement of a sheet while it is written. Empty is absent when it cannot be read at all.
 */
export interface SheetCheck {
	problems: Problem[];
	/**
	 * what contradicts itself or can hardly be so, and stops nothing
	 */
	doubts: Problem[];
	/**
	 * how many lanes of each group are wired to sockets
	 */
	groups: string[];
	empty?: Resolved;
	rules: string[];
	sayable: Sayable;
}
/**
 * by rules
 */
export interface Sayable {
	when: Asks[];
	then: Does[];
}
/**
 * Asks is what a condition can ask of one thing.
 */
export interface Asks {
	/**
	 * "M2_2"
	 */
	about: string;
	can: CanAsk[];
}
/**
 * CanAsk is one of them.
 */
export interface CanAsk {
	when: Condition;
	/**
	 * "holds anything"
	 */
	says: string;
}
/**
 * Does is what an effect can do to one thing.
 */
export interface Does {
	/**
	 * "SATA5"
	 */
	on: string;
	can: CanDo[];
}
/**
 * CanDo is one of them.
 */
export interface CanDo {
	then: Effect;
	/**
	 * "is off"
	 */
	says: string;
}
/**
 * PutSheet is a version of a sheet, made from a revision; 0 makes a new one.
 */
export interface PutSheet {
	revision: number;
	key?: string;
	by?: string;
	/**
	 * why; absent is what differs
	 */
	says?: string;
	/**
	 * the revision that is brought back
	 */
	back?: number;
	sheet: Sheet;
}
/**
 * Offer is what would come of putting one item into one socket.
 */
export interface Offer {
	socket: string;
	/**
	 * of the socket, with the item in it
	 */
	state: 'free' | 'live' | 'off' | 'stopped' | 'unknown';
	/**
	 * short: the link, what stops it, or what it costs
	 */
	says: string;
	/**
	 * what the change stops, here or elsewhere, in full
	 */
	costs: string[];
	/**
	 * what lies there now and comes out
	 */
	out?: string;
}
/**
 * PlanQuestion is what the technician adds to a job when asking for the best plan.
 */
export interface PlanQuestion {
	/**
	 * these pieces go there
	 *
	 * @maxItems 200
	 */
	pins?: Placement[];
	/**
	 * and these do not
	 *
	 * @maxItems 200
	 */
	bans?: Placement[];
	/**
	 * found pieces that are not moved
	 *
	 * @maxItems 200
	 */
	stay?: string[];
	/**
	 * drives whose own rate matters
	 *
	 * @maxItems 200
	 */
	scratch?: string[];
	/**
	 * drives that work together, as fast as their slowest
	 *
	 * @maxItems 200
	 */
	array?: string[];
	/**
	 * found pieces that may come out
	 *
	 * @maxItems 200
	 */
	leave?: string[];
	/**
	 * sockets that stay on and free
	 *
	 * @maxItems 200
	 */
	ports?: string[];
	/**
	 * carriers, adapters and boxes of the shelf may be taken where that is better
	 */
	useShelf?: boolean;
	/**
	 * what hands fitted stays, as far as there is a plan with it
	 */
	fitted?: boolean;
	/**
	 * criteria, what counts most first
	 *
	 * @maxItems 20
	 */
	order?: string[];
}
/**
 * Advice is the planner's whole answer.
 */
export interface Advice {
	end: 'optimal' | 'sure' | 'depends' | 'impossible' | 'gave up';
	/**
	 * why the best is the best, or why there is none
	 */
	proof: string;
	best?: Way;
	provided?: Provided;
	alternatives: Way[];
	/**
	 * wishes of which one must give way
	 */
	clash: string[];
	cures: string[];
	/**
	 * the same, with how they are carried out
	 */
	help: Help[];
	judged: number;
}
/**
 * Way is one plan in words and numbers.
 */
export interface Way {
	placements: Placement[];
	choices: Choice1[];
	/**
	 * the best: what it comes to; an alternative: only what differs
	 */
	says: string[];
	/**
	 * an alternative: which pieces lie elsewhere, which settings are others
	 */
	differs: string[];
	/**
	 * that make it out of any other plan
	 */
	moves: Move[];
	/**
	 * from the shelf: pieces named OnShelf before they are in the job
	 */
	takes: string[];
}
/**
 * better, or the only plan, if what is not known turns out well
 */
export interface Provided {
	way: Way;
	/**
	 * what to look at, the cheapest first
	 */
	look: Missing[];
}
/**
 * Help is one way out of a clash.
 */
export interface Help {
	says: string;
	/**
	 * absent where nobody here can carry it out
	 */
	do?: 'unpin' | 'allow' | 'give up port' | 'let move' | 'leave out' | 'change wish' | 'take';
	item?: string;
	/**
	 * others like it, likewise
	 */
	also?: string[];
	socket?: string;
	part?: string;
}
/**
 * WhyNot asks why a piece is not in a socket in the best plan.
 */
export interface WhyNot {
	question: PlanQuestion;
	item: string;
	socket: string;
}
/**
 * Keep writes what was looked up in a job into the shop's sheet or part.
 */
export interface Keep {
	fact: Fact;
	by?: string;
}
/**
 * KeepProven writes what a job proved into the shop's sheet.
 */
export interface KeepProven {
	of: 'module' | 'memory' | 'link';
	socket?: string;
	by?: string;
}
/**
 * BenchView is what to lay out for a job, and how long its steps take.
 */
export interface BenchView {
	pick: PickLine[];
	steps: StepTime[];
	/**
	 * all steps together
	 */
	minutes: number;
	/**
	 * those that are not done
	 */
	left: number;
	practice?: Practice2;
	/**
	 * how many of them are learnt from finished jobs
	 */
	learnt: number;
	says: string;
}
/**
 * StepTime is how long a step takes, and who says so.
 */
export interface StepTime {
	step: string;
	minutes: number;
	says: string;
}
/**
 * PracticeView is the shop's practice in words.
 */
export interface PracticeView {
	revision: number;
	rows: PracticeRow[];
}
/**
 * PracticeRow is one question with its schools, the default first.
 */
export interface PracticeRow {
	question:
		| 'earth'
		| 'slots'
		| 'more-memory'
		| 'memory-speed'
		| 'beyond-stated'
		| 'array'
		| 'heatsink'
		| 'drive-label'
		| 'old-drive'
		| 'first-start'
		| 'test'
		| 'system'
		| 'screws';
	asks: string;
	schools: PracticeSchool[];
	chosen:
		| 'strap'
		| 'switch'
		| 'sheet'
		| 'first-third'
		| 'lower-first'
		| 'kit'
		| 'mix'
		| 'profile'
		| 'by-hand'
		| 'base'
		| 'try'
		| 'never'
		| 'apart'
		| 'striped'
		| 'mirrored'
		| 'by-load'
		| 'always'
		| 'label-stays'
		| 'label-off'
		| 'unplugged'
		| 'connected'
		| 'open'
		| 'closed'
		| 'each-kind'
		| 'at-the-end'
		| 'by-goal'
		| 'fresh'
		| 'clone'
		| 'copy'
		| 'place-order'
		| 'cups'
		| 'magnetic-mat';
}
/**
 * PracticeSchool is one answer.
 */
export interface PracticeSchool {
	school:
		| 'strap'
		| 'switch'
		| 'sheet'
		| 'first-third'
		| 'lower-first'
		| 'kit'
		| 'mix'
		| 'profile'
		| 'by-hand'
		| 'base'
		| 'try'
		| 'never'
		| 'apart'
		| 'striped'
		| 'mirrored'
		| 'by-load'
		| 'always'
		| 'label-stays'
		| 'label-off'
		| 'unplugged'
		| 'connected'
		| 'open'
		| 'closed'
		| 'each-kind'
		| 'at-the-end'
		| 'by-goal'
		| 'fresh'
		| 'clone'
		| 'copy'
		| 'place-order'
		| 'cups'
		| 'magnetic-mat';
	says: string;
	why: string;
	/**
	 * the condition on which it may be done
	 */
	needs?: string;
}
/**
 * PutPractice writes the shop's practice over a revision.
 */
export interface PutPractice {
	revision: number;
	practice: Practice1;
	by?: string;
}
/**
 * KeepDifference writes what differs into the shop's sheet.
 */
export interface KeepDifference {
	id: number;
	by?: string;
}
/**
 * KeepPart writes what a job says of a piece's part into the shop's description of it.
 */
export interface KeepPart {
	item: string;
	by?: string;
}
/**
 * NewerSheet is what the shop's version of a job's sheet would change in the job; empty where it says the same.
 */
export interface NewerSheet {
	differs: string[];
	/**
	 * findings that the plan would have
	 */
	comes: string[];
	/**
	 * and those that it has now
	 */
	goes: string[];
	fault?: string;
	/**
	 * what other jobs on the model showed, and the shop's sheet does not say
	 */
	proofs: ModelProof[];
}
/**
 * ModelProof is what a job showed and the sheet does not say yet.
 */
export interface ModelProof {
	says: string;
	job: string;
	title: string;
	of: 'module' | 'memory' | 'link';
	socket?: string;
}
/**
 * AtRevision asks for something about a job as it was at a revision.
 */
export interface AtRevision {
	revision: number;
	by?: string;
	key?: string;
}
/**
 * Need is what parts are looked for: at least so much, for at most so much.
 */
export interface Need {
	/**
	 * in the machine, with what may stay
	 */
	memoryBytes?: number;
	/**
	 * one drive for the system
	 */
	systemBytes?: number;
	/**
	 * over PCIe
	 */
	systemFast?: boolean;
	/**
	 * further drives, of one kind, together
	 */
	dataBytes?: number;
	atMostCents?: number;
}
/**
 * Shopping is the baskets worth their money, the cheapest first: each is better by the criteria than all that cost less.
 */
export interface Shopping {
	baskets: Basket[];
	/**
	 * how many were looked at, or why there is none
	 */
	says: string;
}
/**
 * Basket is parts that meet a need and the plan they make.
 */
export interface Basket {
	picks: Pick[];
	/**
	 * "2 of Sallow 16 GB, Ternlight 500", "" for nothing
	 */
	what: string;
	cents: number;
	price: string;
	/**
	 * the first: what it comes to; those after: what the money more buys
	 */
	says: string[];
}
/**
 * Pick is so many of one part.
 */
export interface Pick {
	part: string;
	name: string;
	count: number;
}
/**
 * Because is an answer in words.
 */
export interface Because {
	says: string;
}
/**
 * Happened is one change of a job, as those who listen hear it.
 */
export interface Happened {
	job: string;
	revision: number;
	by?: string;
	says: string;
}
/**
 * ShelfList is a page of the shelf, by name; where a job is asked for, what suits it first.
 */
export interface ShelfList {
	parts: ShelfRow[];
	/**
	 * kinds of part in all
	 */
	count: number;
	/**
	 * how many there are of each, whichever is asked for
	 */
	kinds: KindCount[];
	next?: string;
	for?: ShelfFor;
}
/**
 * ShelfRow is one kind of part as the shelf lists it.
 */
export interface ShelfRow {
	stock: Stock;
	revision: number;
	what: string;
	/**
	 * "42.50", empty where it is not stated
	 */
	price: string;
	/**
	 * the latest jobs that have it
	 */
	used: JobRef[];
	/**
	 * further jobs have it
	 */
	more: boolean;
	goes?: Offer1;
}
/**
 * Stock is one kind of part on the shelf.
 */
export interface Stock {
	part: Part;
	count: number;
	priceCents?: number;
	condition?: 'new' | 'used' | 'tested';
	/**
	 * @maxItems 1000
	 */
	serials?: string[];
}
/**
 * JobRef names a job.
 */
export interface JobRef {
	id: string;
	title: string;
}
/**
 * Offer is what would come of putting one item into one socket.
 */
export interface Offer1 {
	socket: string;
	/**
	 * of the socket, with the item in it
	 */
	state: 'free' | 'live' | 'off' | 'stopped' | 'unknown';
	/**
	 * short: the link, what stops it, or what it costs
	 */
	says: string;
	/**
	 * what the change stops, here or elsewhere, in full
	 */
	costs: string[];
	/**
	 * what lies there now and comes out
	 */
	out?: string;
}
/**
 * KindCount is how many parts of the shelf are of a kind.
 */
export interface KindCount {
	kind:
		| 'drive'
		| 'module'
		| 'card'
		| 'carrier'
		| 'box'
		| 'lead'
		| 'power adapter'
		| 'supply lead'
		| 'holder';
	count: number;
}
/**
 * ShelfFor is the job for which the shelf is looked through.
 */
export interface ShelfFor {
	id: string;
	title: string;
	revision: number;
}
/**
 * QuickAdd is a line of shorthand or a label, with what is not part of it.
 */
export interface QuickAdd {
	text: string;
	price?: string;
	condition?: 'new' | 'used' | 'tested';
	/**
	 * blanks between them
	 */
	serials?: string;
	by?: string;
	/**
	 * names the request: sent twice, the pieces are there once
	 */
	key?: string;
}
/**
 * Restock corrects what is on the shelf of one kind of part, as it was at a revision; 0 puts it there first.
 */
export interface Restock {
	revision: number;
	by: string;
	key?: string;
	stock: Stock;
}
/**
 * Back asks for the last good revision of an ill job.
 */
export interface Back {
	by?: string;
	key?: string;
}
/**
 * CSVReport is what a list came to.
 */
export interface CSVReport {
	says: string;
	good: number;
	taken: number;
	problems: RowProblem[];
}
/**
 * RowProblem is what is wrong with one field of a CSV.
 */
export interface RowProblem {
	/**
	 * of the file, the first is 1
	 */
	line: number;
	/**
	 * by its head
	 */
	column: string;
	/**
	 * filled in by say
	 */
	says: string;
}
/**
 * Imported tells what a file brought.
 */
export interface Imported {
	/**
	 * job, sheet, part or shop
	 */
	kind: string;
	id: string;
	name: string;
}
/**
 * Progress is how far a question to the planner is.
 */
export interface Progress {
	says: string;
	steps: number;
	/**
	 * since it was asked
	 */
	seconds: number;
	/**
	 * seconds after which it is given up
	 */
	most: number;
}
/**
 * OwnerJobs is what is here of one owner.
 */
export interface OwnerJobs {
	owner: string;
	jobs: JobRef[];
	says: string;
	/**
	 * why they cannot be deleted now
	 */
	keeps?: string;
}
/**
 * Forget deletes all there is of an owner, as many jobs as were listed.
 */
export interface Forget {
	owner: string;
	jobs: number;
	by: string;
	key?: string;
}
/**
 * Forgotten is what was deleted.
 */
export interface Forgotten {
	jobs: number;
	says: string;
}
/**
 * Gone is a job that is no longer here.
 */
export interface Gone {
	at: string;
	by: string;
	says: string;
}
/**
 * Health is the answer that the server lives.
 */
export interface Health {
	status: string;
	version: string;
	/**
	 * records that were met and are not what was kept
	 */
	damaged?: Damage[];
	/**
	 * changes that wait for the disk
	 */
	waiting: number;
	space?: Space;
	backup?: Backup;
}
/**
 * Damage is a record that is not what was kept.
 */
export interface Damage {
	/**
	 * "job", "sheet", "part", "picture" or "journal"
	 */
	what: string;
	id: string;
	says: string;
}
/**
 * absent where it cannot be measured
 */
export interface Space {
	bytes: number;
	freeBytes: number;
	low: boolean;
	says: string;
}
/**
 * absent where none are made by the server
 */
export interface Backup {
	last?: string;
	/**
	 * it is older than it may be, or the last try failed
	 */
	old: boolean;
	says?: string;
}
/**
 * Reply is what is said to a question.
 */
export interface Reply {
	/**
	 * the answer in one line
	 */
	says: string;
	lines: Figure[];
	because: Reason[];
	/**
	 * what the question leaves open
	 */
	asks: Ask[];
	/**
	 * why it cannot be answered as it is written
	 */
	fault?: string;
}
/**
 * Ask is what must be settled: a text could mean several things.
 */
export interface Ask {
	about: string;
	/**
	 * words that settle it when added to the text
	 */
	choices: string[];
}
/**
 * Written is what a line means that somebody wrote down at the open machine.
 */
export interface Written {
	/**
	 * as written
	 */
	line: string;
	where: string[];
	/**
	 * what lies there, or why the line cannot be taken
	 */
	says: string;
	/**
	 * what each word was taken for
	 */
	lines: Figure[];
	/**
	 * what it leaves open
	 */
	asks: Ask[];
	/**
	 * it cannot be taken as it is
	 */
	fault: boolean;
	/**
	 * it came to be fitted
	 */
	new?: boolean;
}
/**
 * Intake is a new job as a line tells it.
 */
export interface Intake {
	sheet?: string;
	title?: string;
	tag?: string;
	owner?: string;
	wish: Wish;
	fresh?: boolean;
	/**
	 * the latest job about this machine
	 */
	job?: string;
	/**
	 * and that is open
	 */
	here?: boolean;
	means: TookFor[];
	/**
	 * what is to be said, or could mean two things
	 */
	open: string[];
}
/**
 * TookFor is some words of a line and what they were taken for.
 */
export interface TookFor {
	words: string;
	says: string;
}
/**
 * ShortForm is the short form of a part, as it is filled in.
 */
export interface ShortForm {
	kind:
		| 'drive'
		| 'module'
		| 'card'
		| 'carrier'
		| 'box'
		| 'lead'
		| 'power adapter'
		| 'supply lead'
		| 'holder';
	/**
	 * those that decide whether it fits first
	 */
	fields: FormField[];
	part: Part1;
	says: string;
	/**
	 * what no field says
	 */
	lacks?: string;
	asks: Ask[];
	/**
	 * what is wrong with all of it together
	 */
	fault?: string;
	/**
	 * it can be kept
	 */
	whole: boolean;
}
/**
 * FormField is one fact of a form.
 */
export interface FormField {
	name: string;
	label: string;
	/**
	 * the words that a line has for it
	 */
	value: string;
	choices: FormChoice[];
	/**
	 * what an empty field means
	 */
	blank: string;
	example?: string;
	/**
	 * it seldom decides whether the part fits
	 */
	fold?: boolean;
	fault?: string;
}
/**
 * FormChoice is a word that a field can hold.
 */
export interface FormChoice {
	word: string;
	says: string;
}
/**
 * Part is one kind of thing. Exactly one of drive, module, card, enclosure and fitting is given.
 */
export interface Part1 {
	format: 'deepbay/part';
	version: 1;
	id: string;
	/**
	 * what people call it
	 */
	name: string;
	/**
	 * part number as printed
	 */
	number?: string;
	/**
	 * what its description rests on, beside its label: a job
	 */
	source?: string;
	drive?: Drive;
	module?: Module;
	card?: Card;
	enclosure?: Enclosure;
	fitting?: Fitting;
}
/**
 * FormQuestion is a form as it stands: of a part, or of nothing yet; with fields, where some were filled in.
 */
export interface FormQuestion {
	/**
	 * of a new part; one that is there has its own
	 */
	kind?:
		| 'drive'
		| 'module'
		| 'card'
		| 'carrier'
		| 'box'
		| 'lead'
		| 'power adapter'
		| 'supply lead'
		| 'holder';
	part?: Part;
	/**
	 * @maxItems 40
	 */
	values?: FormValue[];
}
/**
 * FormValue is what stands in a field.
 */
export interface FormValue {
	name: string;
	value: string;
}
/**
 * Fit is whether one kind of M.2 card goes into a socket, and works there.
 */
export interface Fit {
	card: string;
	keys: ('A' | 'B' | 'E' | 'M')[];
	state: 'free' | 'live' | 'off' | 'stopped' | 'unknown';
	says: string;
	findings: string[];
}
/**
 * Check is the judgement of a job's plan, for programs.
 */
export interface Check {
	format: 'deepbay/check';
	version: 1;
	job: string;
	title: string;
	/**
	 * by a rule of fit, or by what is to be answered first
	 */
	stops: boolean;
	/**
	 * what is to be answered first
	 */
	blocks: string[];
	/**
	 * what starts the machine afterwards
	 */
	starts?: string;
	answer: Resolved;
}
/**
 * TroubleView is what is wrong with the machine of a job, and what was done about it.
 */
export interface TroubleView {
	trouble: Trouble;
	checked: CheckMade[];
	cures: CureBegun[];
	/**
	 * what the machine told of last and nobody expected
	 */
	strange: string[];
	keys: Keys;
}
/**
 * Trouble is what is wrong with a machine, as far as what was seen tells.
 */
export interface Trouble {
	differs: string[];
	leaders: Leading[];
	more: number;
	next?: CheckWords;
	certain: boolean;
	/**
	 * where it stands, in a sentence
	 */
	says: string;
	danger?: string;
	out: RuledOut[];
}
/**
 * Leading is an explanation that agrees with all that was seen.
 */
export interface Leading {
	faults: Suspect[];
	/**
	 * of all that agree
	 */
	percent: number;
	/**
	 * what it explains
	 */
	for: string[];
	/**
	 * what it would show besides
	 */
	open: string[];
}
/**
 * Suspect is a fault with its cure.
 */
export interface Suspect {
	fault: string;
	says: string;
	cure: string;
	caution?: string;
	/**
	 * that the cure takes, without opening the machine
	 */
	minutes: number;
	/**
	 * the machine must be opened for it
	 */
	inside: boolean;
	/**
	 * it only looks like a fault
	 */
	normal?: boolean;
	socket?: string;
}
/**
 * CheckWords is a check in words.
 */
export interface CheckWords {
	check: string;
	does: string;
	/**
	 * that is to be read
	 */
	line?: string;
	socket?: string;
	with?: string;
	minutes: number;
	inside: boolean;
	answers: PossibleAnswer[];
}
/**
 * PossibleAnswer is one thing that a check may show, and what is left then.
 */
export interface PossibleAnswer {
	is?:
		| 'unclear'
		| 'same'
		| 'starts'
		| 'gone'
		| 'as-written'
		| 'another'
		| 'home'
		| 'not-home'
		| 'clean'
		| 'dirty'
		| 'with-place'
		| 'with-piece'
		| 'turns'
		| 'silent'
		| 'clicks'
		| 'right'
		| 'wrong'
		| 'off'
		| 'on'
		| 'free'
		| 'covered'
		| 'nothing'
		| 'found'
		| 'on-the-card'
		| 'on-the-board'
		| 'closed'
		| 'open'
		| 'good'
		| 'failing'
		| 'new-enough'
		| 'too-old'
		| 'first'
		| 'starts-not'
		| 'uefi'
		| 'legacy'
		| 'online'
		| 'same-id'
		| 'not-yet'
		| 'passes'
		| 'fails'
		| '64'
		| '32';
	says: string;
	percent: number;
	/**
	 * the likeliest of what is left
	 */
	leaves?: string;
}
/**
 * RuledOut is a fault that what was seen rules out.
 */
export interface RuledOut {
	says: string;
	by: string;
}
/**
 * CheckMade is a check that was made, and what it showed.
 */
export interface CheckMade {
	check: string;
	says: string;
	is: string;
	by?: string;
	at: string;
}
/**
 * CureBegun is a cure under way, or done.
 */
export interface CureBegun {
	id: number;
	of: Suspect;
	/**
	 * its first step that is not done
	 */
	first?: string;
	done: number;
	steps: number;
	ended: boolean;
	by?: string;
}
/**
 * into set-up and the boot menu
 */
export interface Keys {
	setUp: string;
	boot: string;
	/**
	 * the sheet is silent on one of them
	 */
	guess?: boolean;
}
/**
 * Drafted is a machine as it tells of itself: its sheet, what lies in it, what is asked.
 */
export interface Drafted {
	sheet: Sheet;
	/**
	 * a piece a line, as it is written down
	 */
	lines: string[];
	/**
	 * what a probe cannot see
	 */
	asks: string[];
}
/**
 * SimView is how a simulated machine stands.
 */
export interface SimView {
	there: boolean;
	on: boolean;
	open: boolean;
	minutes: number;
	/**
	 * what the last thing done came to
	 */
	says: string;
	/**
	 * of a check
	 */
	is?:
		| 'unclear'
		| 'same'
		| 'starts'
		| 'gone'
		| 'as-written'
		| 'another'
		| 'home'
		| 'not-home'
		| 'clean'
		| 'dirty'
		| 'with-place'
		| 'with-piece'
		| 'turns'
		| 'silent'
		| 'clicks'
		| 'right'
		| 'wrong'
		| 'off'
		| 'on'
		| 'free'
		| 'covered'
		| 'nothing'
		| 'found'
		| 'on-the-card'
		| 'on-the-board'
		| 'closed'
		| 'open'
		| 'good'
		| 'failing'
		| 'new-enough'
		| 'too-old'
		| 'first'
		| 'starts-not'
		| 'uefi'
		| 'legacy'
		| 'online'
		| 'same-id'
		| 'not-yet'
		| 'passes'
		| 'fails'
		| '64'
		| '32';
	/**
	 * what can be read off it
	 */
	screens: SimLine[];
	/**
	 * while set-up can be reached
	 */
	settings: SimSetting[];
	/**
	 * at which hands can do something
	 */
	places: SimPlace[];
	/**
	 * only where it was asked for
	 */
	hidden: Suspect[];
	probe?: Observation1;
}
/**
 * SimLine is one line of a screen.
 */
export interface SimLine {
	line: string;
	screen: string;
	about: string;
	shows: string;
	reading: Reading;
}
/**
 * SimSetting is one setting as it stands.
 */
export interface SimSetting {
	id: string;
	name: string;
	value: string;
	options: Option[];
}
/**
 * SimPlace is a place with something in it.
 */
export interface SimPlace {
	socket: string;
	name: string;
	hands: ('reseat' | 'clean' | 'lead' | 'plug' | 'replace' | 'move')[];
}
/**
 * Observation is what was seen, or is expected to be.
 */
export interface Observation1 {
	format: 'deepbay/observation';
	version: 1;
	/**
	 * @maxItems 2000
	 */
	readings: Reading[];
	machine?: Inventory;
}
/**
 * SimAction is something done with a simulated machine.
 */
export interface SimAction {
	do: 'make' | 'take' | 'start' | 'stop' | 'set' | 'hands' | 'check' | 'mend' | 'reveal';
	count?: number;
	seed?: number;
	fault?: string;
	socket?: string;
	hands?: 'reseat' | 'clean' | 'lead' | 'plug' | 'replace' | 'move';
	setting?: string;
	value?: string;
	check?: string;
}
/**
 * Invitation is how a machine on the bench sends itself in.
 */
export interface Invitation {
	/**
	 * lines to type; none where machines are not listened to
	 */
	linux: string[];
	/**
	 * the line that makes a Windows machine tell; what it prints is dropped on the job
	 */
	windows: string;
	says: string;
}
/**
 * Gains is what was measured before the work and after it.
 */
export interface Gains {
	changes: Gained[];
	/**
	 * what can be measured
	 */
	whats: WhatToAsk[];
}
/**
 * Gained is one thing before and after.
 */
export interface Gained {
	what: string;
	unit: string;
	sound?: boolean;
	verdict: 'better' | 'worse' | 'alike' | 'near' | 'lone';
	says: string;
	looks: string[];
	/**
	 * before and after, those that there are
	 */
	sides: Measured[];
	/**
	 * at most, in its unit
	 */
	allows?: number;
}
/**
 * Measured is one side of it.
 */
export interface Measured {
	id: number;
	when: 'before' | 'after';
	runs: number[];
	background?: number[];
	/**
	 * quartiles and median
	 */
	low: number;
	mid: number;
	up: number;
	/**
	 * of a sound, without the room's
	 */
	level?: number;
	atMost?: boolean;
	says: string;
	by?: string;
	at?: string;
	with?: string;
}
/**
 * WhatToAsk is something that can be measured.
 */
export interface WhatToAsk {
	what:
		| 'sequential-read'
		| 'sequential-write'
		| 'random-read'
		| 'random-write'
		| 'start'
		| 'load'
		| 'heat-idle'
		| 'heat-at-work'
		| 'sound-idle'
		| 'sound-at-work';
	says: string;
	unit: string;
	/**
	 * of blocks, at a depth
	 */
	rate?: boolean;
	/**
	 * with a background
	 */
	loud?: boolean;
}
/**
 * SeriesRead is what a file of measurements holds.
 */
export interface SeriesRead {
	series: Series[];
}
/**
 * ArrayChoices is what some drives can come to together.
 */
export interface ArrayChoices {
	offers: ArrayOffer[];
	/**
	 * the risk that was reckoned with
	 */
	perYear: number;
	hours: number;
	years: number;
	/**
	 * what the risk means
	 */
	says: string;
	makers: ArrayMaker[];
}
/**
 * ArrayOffer is one of them.
 */
export interface ArrayOffer {
	level: '0' | '1' | '5' | '6' | '10' | 'joined';
	name: string;
	usable: string;
	reads: string;
	writes: string;
	/**
	 * the chance of losing data
	 */
	loses: string;
	oneGone: string;
	notes: string[];
}
/**
 * ArrayMaker is who can make an array, and what hangs on it.
 */
export interface ArrayMaker {
	by: 'firmware' | 'system';
	name: string;
	says: string[];
}
/**
 * Volumes is what is written on the blank drives of a job.
 */
export interface Volumes {
	drives: Divided[];
	/**
	 * drives of which nobody said what they hold
	 */
	open: Unsaid[];
	system?: SystemOn;
	/**
	 * drives that hold something, with their letters
	 */
	stays: Staying[];
	/**
	 * which drives are not among them, and why
	 */
	says: string;
}
/**
 * Divided is a blank drive, or an array of them, with its volumes.
 */
export interface Divided {
	item?: string;
	array?: string;
	name: string;
	size: string;
	before: string;
	/**
	 * what it holds is erased
	 */
	empties?: boolean;
	/**
	 * somebody said so; else it is what is suggested
	 */
	planned?: boolean;
	layout: Layout;
	/**
	 * the drive to scale
	 */
	strip: Strip[];
	notes: string[];
	/**
	 * what is wrong with it now
	 */
	faults: string[];
}
/**
 * Strip is a stretch of a drive.
 */
export interface Strip {
	kind: 'table' | 'volume' | 'free' | 'lost';
	/**
	 * of the drive, 0 to 1
	 */
	share: number;
	says: string;
}
/**
 * Unsaid is a drive of which nobody said what it holds.
 */
export interface Unsaid {
	item: string;
	name: string;
}
/**
 * what the drive gets that starts the machine
 */
export interface SystemOn {
	/**
	 * what it holds now
	 */
	before: string;
	name: string;
	/**
	 * as the installer's list tells it
	 */
	size: string;
	/**
	 * how it looks afterwards, roughly
	 */
	strip: Strip[];
	says: string[];
}
/**
 * Staying is a drive that stays and holds something, or may.
 */
export interface Staying {
	item: string;
	name: string;
	/**
	 * its letters or mount points, as far as somebody said
	 */
	at: string;
}
/**
 * Transfers is what comes over in a job, and between which drives more can.
 */
export interface Transfers {
	moved: Moved[];
	/**
	 * drives that hold something, or may
	 */
	from: MoveEnd[];
	/**
	 * blank ones
	 */
	to: MoveEnd[];
}
/**
 * Moved is a transfer in words.
 */
export interface Moved {
	transfer: Transfer;
	from: string;
	to: string;
	needs: NeedLine[];
	time: string;
	proof?: string;
	faults: string[];
}
/**
 * NeedLine is something that must hold, and whether it does.
 */
export interface NeedLine {
	need: string;
	met?: boolean;
	/**
	 * nothing can be moved so
	 */
	hard?: boolean;
	says: string;
}
/**
 * MoveEnd is a drive that data can come from, or onto.
 */
export interface MoveEnd {
	item: string;
	name: string;
}
/**
 * LogbookPage is a page of the logbook, the latest line first.
 */
export interface LogbookPage {
	lines: LogbookLine[];
	/**
	 * where the next page begins
	 */
	next?: string;
	/**
	 * lines that are not taken in yet
	 */
	left?: number;
	/**
	 * machines that carry what is looked for
	 */
	jobs: LogbookHit[];
	/**
	 * parts of the shelf that do
	 */
	parts: LogbookHit[];
	says: string;
}
/**
 * LogbookLine is one line of a journal.
 */
export interface LogbookLine {
	kind: 'job' | 'sheet' | 'part';
	thing: string;
	called: string;
	revision: number;
	at: string;
	by: string;
	says: string;
}
/**
 * LogbookHit is a job or a part that was found.
 */
export interface LogbookHit {
	id: string;
	called: string;
	/**
	 * of a part: the whole number that was looked for
	 */
	serial?: string;
}
/**
 * LifeView is the life of a machine, or of a part by its serial number.
 */
export interface LifeView {
	title: string;
	/**
	 * of a machine, or the serial number of a part
	 */
	tag?: string;
	owner?: string;
	model?: string;
	jobs: JobRef[];
	life: LifeWords;
	/**
	 * what the shelf's journal says of it
	 */
	shelf: LogbookLine[];
	says: string;
}
/**
 * LifeWords is a life in words.
 */
export interface LifeWords {
	events: LifeEvent[];
	stays: LifeStay[];
}
/**
 * LifeEvent is one line of a life.
 */
export interface LifeEvent {
	at: string;
	job: string;
	title: string;
	says: string;
}
/**
 * LifeStay is a piece in a machine, from when to when.
 */
export interface LifeStay {
	name: string;
	what: string;
	serial?: string;
	place: string;
	/**
	 * of the machine
	 */
	title: string;
	tag?: string;
	/**
	 * the last that tells of it
	 */
	job: string;
	from: string;
	/**
	 * absent: it is there as far as anybody knows
	 */
	to?: string;
	fitted?: boolean;
	lost?: boolean;
	says: string;
}
/**
 * ModelView is what jobs on one model showed of it beyond its sheet.
 */
export interface ModelView {
	sheet: string;
	name: string;
	differs: Recurring[];
	proofs: ModelProof[];
}
/**
 * Recurring is in what machines of a model are not as its sheet says.
 */
export interface Recurring {
	says: string;
	/**
	 * the latest that says so
	 */
	job: string;
	title: string;
	/**
	 * of the difference there
	 */
	id: number;
	times: number;
	/**
	 * it can be written into the sheet
	 */
	fits?: boolean;
}
/**
 * Figures is what the work of a shop came to, month by month.
 */
export interface Figures {
	/**
	 * the oldest first, none left out
	 */
	months: string[];
	tables: FigureTable[];
}
/**
 * FigureTable is all figures of one kind.
 */
export interface FigureTable {
	of: 'jobs' | 'phase' | 'fault' | 'failed' | 'incident' | 'differed' | 'put';
	head: string;
	/**
	 * of what is not counted
	 */
	unit?: string;
	rows: FigureRow[];
}
/**
 * FigureRow is one figure over time.
 */
export interface FigureRow {
	name: string;
	n: number;
	/**
	 * the mean, in the unit of its table
	 */
	took?: number;
	/**
	 * likewise
	 */
	expected?: number;
	/**
	 * the mean of each month where there is a unit, otherwise how many
	 */
	months: number[];
}
