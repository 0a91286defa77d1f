package access_test

import (
	"slices"
	"strings"
	"testing"

	"deepbay/demo"
	"deepbay/internal/core/access"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/layer"
	"deepbay/internal/core/rig"
)

func found(t *testing.T, name string) rig.Rig {
	t.Helper()
	j, err := demo.Job(name)
	if err != nil {
		t.Fatal(err)
	}
	return j.FoundRig()
}

// A part that is fitted is a layer where it lies over something: a wide card over the socket in
// its shadow, and over what the sheet says lies under its opening; a drive that is held by a
// cage ties it down.
func TestFitted(t *testing.T) {
	r := found(t, "multibeam-workstation")
	s := access.Of(&r, fit.Bays(&r), nil)
	i := slices.IndexFunc(s.Layers, func(l layer.Layer) bool { return access.Item(l.ID) == "item-3" })
	if i < 0 {
		t.Fatalf("the wide card is no layer: %+v", s.Layers)
	}
	card := &s.Layers[i]
	if !slices.Contains(card.Hides, "M2_1") || slices.Contains(card.Hides, "M2_2") || card.Fasteners[0].Count != 2 || len(card.Leads) != 1 || card.Leads[0].Again != layer.OnceBack {
		t.Errorf("it is %+v", card)
	}
	open, ok := s.Least([]layer.Goal{s.To("M2_1")}, nil)
	var names []string
	order, _ := s.Off(open)
	for _, n := range order {
		names = append(names, string(s.Layers[n].ID))
	}
	if got := strings.Join(names, " "); !ok || got != "side-panel card-support +item-3 drive-heatsink" {
		t.Errorf("to M2_1 come off %s", got)
	}
	sheet := *r.Sheet
	sheet.Sockets = slices.Clone(sheet.Sockets)
	sheet.Socket("M2_1").Under = 4 // the manual says otherwise than the drawing
	r.Sheet = &sheet
	s = access.Of(&r, fit.Bays(&r), nil)
	for _, l := range s.Layers {
		if access.Item(l.ID) == "item-3" && slices.Contains(l.Hides, "M2_1") {
			t.Error("it lies over a socket that the sheet puts under another opening")
		}
	}

	r = found(t, "pilot-office-desktop")
	s = access.Of(&r, fit.Bays(&r), nil)
	leads := 0
	for _, l := range s.Layers {
		for _, d := range l.Leads {
			if d.Item == "item-2" && l.ID == "drive-cage" {
				leads++
			}
		}
	}
	if leads != 2 {
		t.Errorf("%d leads tie the cage down", leads)
	}
}

// A board's heatsink is off where the card below brings its own, and what is said to lie in a
// bay is there only while something does.
func TestNotThere(t *testing.T) {
	j, err := demo.Job("multibeam-workstation")
	if err != nil {
		t.Fatal(err)
	}
	there := func(r rig.Rig, id layer.ID) bool {
		s := access.Of(&r, fit.Bays(&r), nil)
		return slices.ContainsFunc(s.Layers, func(l layer.Layer) bool { return l.ID == id })
	}
	if !there(j.FoundRig(), "drive-heatsink") || there(j.PlannedRig(), "drive-heatsink") {
		t.Error("the board's heatsink lies over a drive with its own, or not over one without")
	}
	j.Sheet.Layers = append(slices.Clone(j.Sheet.Layers), layer.Layer{ID: "front-disk", Name: "disk", Kind: layer.Drive, In: "SATA1"})
	if there(j.FoundRig(), "front-disk") {
		t.Error("a disk that nobody put in is in the way")
	}
}
