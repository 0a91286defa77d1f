package meter

import (
	"context"
	"errors"
	"fmt"
	"io/fs"
	"math/rand/v2"
	"os"
	"path/filepath"
	"sync"
	"sync/atomic"
	"syscall"
	"time"
	"unsafe"

	"deepbay/internal/core/measure"
	"deepbay/internal/core/quantity"
)

// Plan is how a place is measured.
type Plan struct {
	Bytes   quantity.Bytes // of the file
	Runs    int            // that count; one more comes first, and does not
	Each    time.Duration  // at most, of a run
	Writing bool           // small pieces are written too: it costs the drive some wear
}

// Usual is a plan for a drive that is not busy.
var Usual = Plan{Bytes: 4 * quantity.GiB, Runs: 5, Each: 4 * time.Second}

// The bounds of a plan.
const (
	LeastBytes = 64 * quantity.MiB
	MostBytes  = 256 * quantity.GiB
	MostRuns   = 50
)

// Step tells how far a measuring is: what is measured, which run, and how many there are.
type Step func(what measure.What, run, of int)

// sizes of blocks and requests at once: those that ceilings are stated for, and those that are felt.
const (
	large, largeDepth = quantity.MiB, 8
	small             = 4 * quantity.KiB
)

// spare is how much room is left on a drive beside the file that is measured with.
const spare = 256 * quantity.MiB

// Measure measures reading and writing in a folder: large blocks, eight at once, and small ones, one
// after the other. It makes one file, takes its name away at once, so that nothing is left of it
// however the program ends, and goes past the cache where the file system lets it. The error says
// why nothing, or no more, was measured.
func Measure(ctx context.Context, folder string, p Plan, step Step) ([]measure.Series, error) {
	real, err := tree(folder)
	if err != nil {
		return nil, err
	}
	switch {
	case p.Bytes < LeastBytes || p.Bytes > MostBytes:
		return nil, fmt.Errorf("a file of %s measures nothing here: between %s and %s", p.Bytes.Binary(), LeastBytes.Binary(), MostBytes.Binary())
	case p.Runs < 1 || p.Runs > MostRuns:
		return nil, fmt.Errorf("%d runs: between 1 and %d", p.Runs, MostRuns)
	}
	p.Bytes -= p.Bytes % large
	if free, err := room(real); err != nil {
		return nil, err
	} else if free < p.Bytes+spare {
		return nil, fmt.Errorf("%s has %s free, and the file takes %s beside %s that stay free: give a smaller --size, or make room", folder, free.Binary(), p.Bytes.Binary(), spare.Binary())
	}
	f, past, err := nameless(real)
	if err != nil {
		return nil, err
	}
	defer f.Close()
	m := meter{ctx: ctx, f: f, plan: p, data: aligned(8 * int(large))}
	rand.NewChaCha8([32]byte{1}).Read(m.data) // so that no drive can press it together
	with := "deepbay measure, file of " + p.Bytes.Binary()
	if !past {
		with += ", through the cache"
	}
	var out []measure.Series
	for _, k := range []struct {
		what  measure.What
		block quantity.Bytes
		depth int
	}{{measure.WritesOn, large, largeDepth}, {measure.ReadsOn, large, largeDepth}, {measure.Reads, small, 1}, {measure.Writes, small, 1}} {
		if k.what == measure.Writes && !p.Writing {
			continue
		}
		s := measure.Series{What: k.what, When: measure.After, BlockBytes: k.block, Depth: k.depth, With: with}
		for run := range p.Runs + 1 {
			if step != nil {
				step(k.what, run, p.Runs)
			}
			rate, err := m.run(k.what, int(k.block), k.depth, run)
			if err != nil {
				return out, err
			}
			if run > 0 {
				s.Runs = append(s.Runs, rate.MBps())
			}
		}
		out = append(out, s)
	}
	return out, nil
}

// nameless makes a file in a folder that has no name; past says that it goes past the cache.
func nameless(folder string) (f *os.File, past bool, err error) {
	for _, direct := range []int{syscall.O_DIRECT, 0} {
		name := filepath.Join(folder, fmt.Sprintf(".deepbay-measure-%d-%x", os.Getpid(), rand.Uint64()))
		f, err = os.OpenFile(name, os.O_RDWR|os.O_CREATE|os.O_EXCL|direct, 0o600)
		if direct != 0 && errors.Is(err, syscall.EINVAL) {
			os.Remove(name) // this file system has no way past the cache; it may have made the file
			continue
		}
		if err != nil {
			return nil, false, err
		}
		if err := os.Remove(name); err != nil {
			f.Close()
			return nil, false, err
		}
		return f, direct != 0, nil
	}
	return nil, false, err
}

// room is how much more an ordinary user can write in a folder.
func room(folder string) (quantity.Bytes, error) {
	var s syscall.Statfs_t
	if err := syscall.Statfs(folder, &s); err != nil {
		return 0, &fs.PathError{Op: "statfs", Path: folder, Err: err}
	}
	return quantity.Bytes(s.Bavail) * quantity.Bytes(s.Bsize), nil
}

// aligned is memory that begins where a page does, as going past the cache asks.
func aligned(n int) []byte {
	const page = 4096
	b := make([]byte, n+page)
	at := int(uintptr(unsafe.Pointer(&b[0])) & (page - 1))
	if at != 0 {
		at = page - at
	}
	return b[at : at+n]
}

type meter struct {
	ctx  context.Context
	f    *os.File
	plan Plan
	data []byte
	full bool // the file was written to its end once
}

// run is one run: blocks, so many at once, until the file is through or the time is.
func (m *meter) run(what measure.What, block, depth, run int) (quantity.Rate, error) {
	writes := what == measure.WritesOn || what == measure.Writes
	total := int64(m.plan.Bytes) / int64(block)
	whole := what == measure.WritesOn && !m.full // what is read later must have been written
	until := time.Now().Add(m.plan.Each)
	var next, done atomic.Int64
	var first error
	var once sync.Once
	var all sync.WaitGroup
	began := time.Now()
	for worker := range depth {
		all.Add(1)
		go func() {
			defer all.Done()
			chance := rand.New(rand.NewPCG(uint64(run), uint64(worker)))
			buf := aligned(block)
			for m.ctx.Err() == nil && (whole || time.Now().Before(until)) {
				n := next.Add(1) - 1
				if what.Random() {
					n = chance.Int64N(total)
				} else if n >= total {
					return
				}
				var err error
				if writes {
					// Every block is another piece of what was made by chance, and none is like the one before.
					copy(buf, m.data[int(n)*4096%(len(m.data)-block+1):])
					_, err = m.f.WriteAt(buf, n*int64(block))
				} else {
					_, err = m.f.ReadAt(buf, n*int64(block))
				}
				if err != nil {
					once.Do(func() { first = err })
					next.Add(total)
					return
				}
				done.Add(1)
			}
		}()
	}
	all.Wait()
	if first == nil {
		first = m.ctx.Err()
	}
	if first == nil && writes {
		first = m.f.Sync()
	}
	if first != nil {
		return 0, first
	}
	m.full = m.full || whole
	taken := time.Since(began).Seconds()
	return quantity.Rate(float64(done.Load()*int64(block)) / max(taken, 1e-9)), nil
}
