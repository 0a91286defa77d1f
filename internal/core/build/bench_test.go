package build_test

import (
	"testing"

	"deepbay/demo"
	"deepbay/internal/core/build"
)

// BenchmarkResolve shows what a user waits for at every change: the demo jobs
// as they ship, and the tower with everything placed.
func BenchmarkResolve(b *testing.B) {
	for _, name := range []string{"echo-sounding-tower", "tide-gauge-mini-pc", "chart-table-workstation", "dive-camera-ingest"} {
		j, err := demo.Job(name)
		if err != nil {
			b.Fatal(err)
		}
		bld := j.PlannedBuild()
		b.Run(name, func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				build.Resolve(&bld)
			}
		})
		if name != "echo-sounding-tower" {
			continue
		}
		full := bld
		full.Placements = []build.Placement{{Item: "item-1", Socket: "A1"}, {Item: "item-2", Socket: "B1"}, {Item: "item-3", Socket: "SATA6"},
			{Item: "item-4", Socket: "M2_2"}, {Item: "item-5", Socket: "A2"}, {Item: "item-6", Socket: "B2"}}
		b.Run(name+"-full", func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				build.Resolve(&full)
			}
		})
	}
}
