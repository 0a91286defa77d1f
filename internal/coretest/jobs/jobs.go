// Package jobs makes random jobs for tests. It stands apart from coretest, which the
// rooms below job use.
package jobs

import (
	"time"

	"math/rand"
	"slices"

	"deepbay/internal/core/fit"
	"deepbay/internal/core/job"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/rig"
	"deepbay/internal/coretest"
)

// Random makes a job around a random machine: some pieces were found in it, others came
// along, some change places in the plan, and now and then one lies where it does not go.
func Random(rng *rand.Rand) job.Job {
	r := coretest.Machine(rng)
	j := job.New("random", "Random", *r.Sheet, rig.Wish{}, day)
	j.Processor = r.Processor
	for _, p := range r.Pieces {
		j.Parts = append(j.Parts, *p.Part)
		j.Items = append(j.Items, job.Item{ID: p.ID, Part: p.Part.ID, New: p.New})
	}
	if j.Sheet.Settings == nil {
		j.Sheet.Settings = []machine.Setting{}
	}
	if rng.Intn(4) == 0 {
		lead := part.Part{ID: "lead", Name: "lead", Fitting: &part.Fitting{Kind: part.DataLead}}
		j.Parts, j.Items = append(j.Parts, lead), append(j.Items, job.Item{ID: "lead", Part: "lead", New: true})
	}
	j.Planned = r.Setup
	var home []rig.Move // what came along was not found in the machine
	for _, it := range j.Items {
		if it.New {
			home = append(home, rig.Move{Item: it.ID})
		}
	}
	if found, _, err := r.Moved(home); err == nil {
		j.Found = found
	}
	for range rng.Intn(4) {
		Shuffle(rng, &j)
	}
	return j
}

// Shuffle moves one piece of the plan: into a socket of the board or a carrier, or out.
func Shuffle(rng *rand.Rand, j *job.Job) {
	r := j.PlannedRig()
	if len(r.Pieces) == 0 {
		return
	}
	places := []rig.Path{{}}
	for _, k := range r.Sheet.Sockets {
		places = append(places, rig.On(k.ID))
	}
	for _, k := range r.Carried() {
		places = append(places, k.Path)
	}
	if bays := r.Sheet.EveryBay(); len(bays) > 0 && rng.Intn(5) == 0 {
		tell(rng, j, bays[rng.Intn(len(bays))].ID)
		return
	}
	p := r.Pieces[rng.Intn(len(r.Pieces))]
	if rng.Intn(4) > 0 { // mostly where it goes
		places = slices.DeleteFunc(places, func(at rig.Path) bool {
			k := r.Socket(at)
			return k != nil && !rig.Suits(p.Part, k)
		})
	}
	if after, _, err := r.Moved(r.Put(p.ID, places[rng.Intn(len(places))])); err == nil {
		j.Planned = after
	}
}

// tell lays one of the drives that lie in bays into a bay.
func tell(rng *rand.Rand, j *job.Job, bay machine.BayID) {
	r := j.PlannedRig()
	lie := fit.Bays(&r)
	if len(lie) == 0 {
		return
	}
	id := lie[rng.Intn(len(lie))].Item
	if after, _, err := r.Moved([]rig.Move{{Item: id, Socket: r.Where(id), Bay: bay}}); err == nil {
		j.Planned = after
	}
}

var day = time.Date(2026, time.November, 2, 8, 0, 0, 0, time.UTC)
