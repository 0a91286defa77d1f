package main

import (
	"bufio"
	"fmt"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"testing"
	"time"
)

// BenchmarkStart starts the built program with the demo shop and asks once. It
// reports the time from start to first answer, the memory resident then, and
// the size of the program. make bench builds it first.
func BenchmarkStart(b *testing.B) {
	program := filepath.Join("..", "..", "bin", "deepbay")
	info, err := os.Stat(program)
	if err != nil {
		b.Skip("bin/deepbay is not built: run make bench")
	}
	var resident float64
	for b.Loop() {
		c := exec.Command(program, "demo", "--listen", "127.0.0.1:0")
		out, err := c.StdoutPipe()
		if err != nil {
			b.Fatal(err)
		}
		if err := c.Start(); err != nil {
			b.Fatal(err)
		}
		line, err := bufio.NewReader(out).ReadString('\n')
		if err != nil {
			b.Fatal(err)
		}
		r, err := http.Get(strings.TrimSpace(strings.TrimPrefix(line, "Deep Bay: ")) + "/api/jobs")
		if err != nil {
			b.Fatal(err)
		}
		r.Body.Close()
		b.StopTimer()
		resident = max(resident, residentMB(b, c.Process.Pid))
		if err := c.Process.Signal(os.Interrupt); err != nil {
			b.Fatal(err)
		}
		if err := c.Wait(); err != nil {
			b.Fatal(err)
		}
		b.StartTimer()
	}
	b.ReportMetric(float64(b.Elapsed())/float64(b.N)/float64(time.Millisecond), "ms-to-first-answer")
	b.ReportMetric(resident, "MB-resident")
	b.ReportMetric(float64(info.Size())/1e6, "MB-program")
}

// residentMB reads the kernel's figure for a process, in 10^6 bytes.
func residentMB(b *testing.B, pid int) float64 {
	b.Helper()
	text, err := os.ReadFile(fmt.Sprintf("/proc/%d/status", pid))
	if err != nil {
		b.Skip("resident memory is read from the kernel's process files, which are not here")
	}
	for line := range strings.Lines(string(text)) {
		if value, ok := strings.CutPrefix(line, "VmRSS:"); ok {
			kib, err := strconv.ParseFloat(strings.Fields(value)[0], 64)
			if err != nil {
				b.Fatal(err)
			}
			return kib * 1024 / 1e6
		}
	}
	b.Fatal("no VmRSS")
	return 0
}
