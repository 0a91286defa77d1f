package probe_test

import "syscall"

// pipe makes a pipe that nobody writes to.
func pipe(name string) error { return syscall.Mkfifo(name, 0o666) }
