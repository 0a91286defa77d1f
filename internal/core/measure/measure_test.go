package measure

import (
	"math"
	"math/rand"
	"strings"
	"testing"

	"deepbay/internal/core/known"
	"deepbay/internal/core/quantity"
)

func near(a, b, within float64) bool { return math.Abs(a-b) <= within }

// TestSounds holds the tables of sums and differences that the trade prints.
func TestSounds(t *testing.T) {
	for apart, more := range map[float64]float64{0: 3.01, 1: 2.54, 2: 2.12, 3: 1.76, 4: 1.46, 6: 0.97, 10: 0.41, 15: 0.14} {
		if got := Sum(40, 40-apart) - 40; !near(got, more, 0.006) {
			t.Errorf("two sounds %v dB apart are %.3f dB above the louder, want %v", apart, got, more)
		}
	}
	for above, less := range map[float64]float64{3: 3.02, 4: 2.20, 5: 1.65, 6: 1.26, 8: 0.75, 10: 0.46, 15: 0.14} {
		got := Without(40, 40-above)
		if !near(40-got.Level, less, 0.006) || got.AtMost || got.Rough != (above < 6) {
			t.Errorf("%v dB above the room: %+v, want %v taken off", above, got, less)
		}
	}
	if got := Without(31, 30); !got.AtMost || got.Level != 28 {
		t.Errorf("one dB above the room: %+v", got)
	}
	if got := Mean([]float64{30, 40}); !near(got, 37.40, 0.01) {
		t.Errorf("the mean of 30 and 40 dB is %v", got)
	}
}

// TestSpeedup holds the table of shares of reading.
func TestSpeedup(t *testing.T) {
	for _, c := range []struct{ f, s, want float64 }{
		{0.1, 2, 1.05}, {0.1, 6, 1.09}, {0.1, 13, 1.10}, {0.3, 2, 1.18}, {0.3, 6, 1.33}, {0.3, 13, 1.38}, {0.5, 2, 1.33}, {0.5, 6, 1.71}, {0.5, 13, 1.86},
		{0.8, 2, 1.67}, {0.8, 6, 3.00}, {0.8, 13, 3.82}, {0.5, math.Inf(1), 2}, {0.8, math.Inf(1), 5},
	} {
		if got := Speedup(c.f, c.s); !near(got, c.want, 0.006) {
			t.Errorf("%v of it read, %v times as fast: %v, want %v", c.f, c.s, got, c.want)
		}
		if math.IsInf(c.s, 1) {
			continue
		}
		got, ok := ReadingOf(100, 100/Speedup(c.f, c.s), c.s) // and back
		if !ok || !near(got.Was, c.f, 1e-9) || !near(got.Fastest, 100*(1-c.f), 1e-9) || got.Beyond {
			t.Errorf("from the times: %+v, want a share of %v", got, c.f)
		}
	}
	if got, ok := ReadingOf(100, 10, 2); !ok || !got.Beyond || got.Was != 1 {
		t.Errorf("ten times as fast with a drive twice as fast: %+v %v", got, ok)
	}
	if _, ok := ReadingOf(100, 90, 1); ok {
		t.Error("a drive that is no faster tells a share")
	}
	if n := PerSecond(quantity.MBps(51.2), 4096); n != 12500 || !near(Latency(quantity.MBps(51.2), 4096, 1), 80e-6, 1e-12) {
		t.Errorf("51.2 MB/s in blocks of 4 KiB are %v a second", n)
	}
}

// TestCompare: a change is one beyond both spreads, in the direction that is good for what is measured.
func TestCompare(t *testing.T) {
	series := func(w What, runs, room []float64) *Series {
		return &Series{What: w, Of: "x", Runs: runs, Background: room}
	}
	for _, c := range []struct {
		name          string
		w             What
		before, after []float64
		rooms         [2][]float64
		want          Verdict
	}{
		{"faster", ReadsOn, []float64{540, 545, 550}, []float64{3400, 3450, 3500}, [2][]float64{}, Better},
		{"slower", ReadsOn, []float64{540, 545, 550}, []float64{300, 310, 305}, [2][]float64{}, Worse},
		{"within the spread", ReadsOn, []float64{500, 545, 590}, []float64{540, 560, 600}, [2][]float64{}, Alike},
		{"single runs, 4 %", ReadsOn, []float64{100}, []float64{104}, [2][]float64{}, Alike},
		{"single runs, 6 %", ReadsOn, []float64{100}, []float64{106}, [2][]float64{}, Better},
		{"less time is better", Load, []float64{41, 42, 43}, []float64{20, 21, 21}, [2][]float64{}, Better},
		{"cooler is better", Hot, []float64{80, 81, 82}, []float64{60, 61, 62}, [2][]float64{}, Better},
		{"quieter", Loud, []float64{38, 38}, []float64{31, 31}, [2][]float64{{25}, {25}}, Better},
		{"2 dB", Loud, []float64{38, 38}, []float64{36, 36}, [2][]float64{{25}, {25}}, Alike},
		{"lost in the room, and less by far", Loud, []float64{38}, []float64{26}, [2][]float64{{25}, {25}}, Better},
		{"both lost in the room", Loud, []float64{27}, []float64{26}, [2][]float64{{25}, {25}}, Near},
		{"louder than one lost in the room", Loud, []float64{26}, []float64{38}, [2][]float64{{25}, {25}}, Worse},
		{"only before", Load, []float64{41}, nil, [2][]float64{}, Lone},
	} {
		before, after := series(c.w, c.before, c.rooms[0]), series(c.w, c.after, c.rooms[1])
		if c.after == nil {
			after = nil
		}
		if got := Compare(before, after); got.Verdict != c.want {
			t.Errorf("%s: %s, want %s (%+v)", c.name, got.Verdict, c.want, got)
		}
	}
}

// TestSpread holds quartiles against numbers worked by hand, and on any runs in order.
func TestSpread(t *testing.T) {
	if got := SpreadOf([]float64{4, 1, 3, 2}); got != (Spread{4, 1, 1.75, 2.5, 3.25, 4}) {
		t.Errorf("of 1 to 4: %+v", got)
	}
	rng := rand.New(rand.NewSource(1))
	for range 1000 {
		runs := make([]float64, 1+rng.Intn(30))
		for i := range runs {
			runs[i] = rng.NormFloat64() * 100
		}
		s := SpreadOf(runs)
		if !(s.Least <= s.Low && s.Low <= s.Mid && s.Mid <= s.Up && s.Up <= s.Top) {
			t.Fatalf("%v: %+v", runs, s)
		}
	}
}

func TestStands(t *testing.T) {
	path := known.Between(quantity.MBps(500), quantity.MBps(560))
	for rate, want := range map[float64]Standing{600: Cached, 570: Fair, 420: Fair, 399: Short} {
		if got := Stands(quantity.MBps(rate), path); got != want {
			t.Errorf("%v MB/s: %s, want %s", rate, got, want)
		}
	}
	if got := Stands(1, known.Range[quantity.Rate]{}); got != Untold {
		t.Errorf("no path: %s", got)
	}
}

// TestRead reads both formats, and names the place of what is wrong.
func TestRead(t *testing.T) {
	got, err := Read([]byte(`{"fio version":"fio-3.33","global options":{"bs":"1m","iodepth":"8"},"jobs":[
		{"jobname":"deep","job options":{"rw":"read"},"read":{"bw_bytes":540000000,"io_bytes":9}},
		{"jobname":"deep","job options":{"rw":"read"},"read":{"bw_bytes":550000000,"io_bytes":9}},
		{"jobname":"small","job options":{"rw":"randrw","bs":"4k","iodepth":"1"},"read":{"bw":40000,"io_bytes":9},"write":{"bw_bytes":80000000,"io_bytes":9}}]}`))
	if err != nil || len(got) != 3 {
		t.Fatalf("%v %+v", err, got)
	}
	if s := got[0]; s.What != ReadsOn || s.BlockBytes != quantity.MiB || s.Depth != 8 || len(s.Runs) != 2 || s.Runs[1] != 550 {
		t.Errorf("sequential: %+v", s)
	}
	if s := got[1]; s.What != Reads || s.BlockBytes != 4096 || s.Depth != 1 || !near(s.Runs[0], 40.96, 1e-9) {
		t.Errorf("small reads: %+v", s)
	}
	if s := got[2]; s.What != Writes || s.Runs[0] != 80 {
		t.Errorf("small writes: %+v", s)
	}
	got, err = Read([]byte("\ufeffwhat,when,of,value,background\nload,before,tide model,\"41,5\",\nLoad,Before,tide model,42,\nsound idle,after,,31,25\n"))
	if err != nil || len(got) != 2 || len(got[0].Runs) != 2 || got[0].Runs[0] != 41.5 || got[1].Background[0] != 25 {
		t.Errorf("CSV: %v %+v", err, got)
	}
	for text, want := range map[string]string{
		"": "[/ measure/not-measured]", "{": "measure/not-json", `{"jobs":[]}`: "/jobs", `{"jobs":[{"jobname":"x"}]}`: "/jobs/0",
		`{"jobs":[{"job options":{"bs":"huge"},"read":{"bw":1}}]}`: "/jobs/0/bs", `{"jobs":7}`: "/jobs", "a,b\n1,2": "measure/no-column",
		"what,value\nload,-3": "/2/value", "what,value\nspeed,3": "/2/what", "what,value,depth\nload,3,x": "/2/depth", "what,value": "measure/no-runs", "what,value\nload,NaN": "/2/value",
		"what,value\n" + strings.Repeat("load,3\n", 201): "measure/too-many-runs", "what,value,when\nload,3,later": "/2/when",
	} {
		if _, err := Read([]byte(text)); err == nil || !strings.Contains(err.Error(), strings.Trim(strings.TrimPrefix(want, "[/ "), "]")) {
			t.Errorf("%.40q: %v, want %s", text, err, want)
		}
	}
}

// FuzzRead reads anything without a panic, and nothing that Check would refuse.
func FuzzRead(f *testing.F) {
	f.Add([]byte(`{"jobs":[{"jobname":"a","job options":{"bs":"4k"},"read":{"bw_bytes":1e9,"io_bytes":1}}]}`))
	f.Add([]byte("what,when,of,block,depth,value,background\nload,before,x,,,3,\nsequential read,,,1 MiB,8,500,\n"))
	f.Fuzz(func(t *testing.T, b []byte) {
		all, err := Read(b)
		if err != nil {
			return
		}
		for i := range all {
			for _, p := range all[i].Check() {
				switch p.Pointer { // what a person adds before it is kept
				case "/of", "/blockBytes", "/background":
				default:
					t.Fatalf("%+v: %v", all[i], p)
				}
			}
		}
	})
}
