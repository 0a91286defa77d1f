package plan

import (
	"deepbay/internal/core/build"
	"deepbay/internal/core/machine"
)

// want is one thing that binds the search and can be set aside to see what clashes.
type want struct {
	kind   wantKind
	item   build.ItemID
	socket machine.SocketID
}

type wantKind string

const (
	wantIn     wantKind = "in"     // the piece must be in the machine
	wantStay   wantKind = "stay"   // and where it was found
	wantPin    wantKind = "pin"    // or where the technician pinned it
	wantBan    wantKind = "ban"    // and not there
	wantMemory wantKind = "memory" // as much memory as was wished for
	wantSystem wantKind = "system" // the system drive that was wished for
)
