// Command deepbay is the whole program: the web application, and the same
// answers on the command line.
//
//	deepbay demo                   serve a clean copy of the demo shop
//	deepbay serve --data FILE      serve a shop of your own
//	deepbay check JOB.json         judge the plan of a job file
//	deepbay expect JOB.json        foretell what power-on shows
//	deepbay probe                  read this machine into an observation
//	deepbay compare JOB.json OBS   compare that with what was foretold
//	deepbay diagnose JOB.json OBS  say what is wrong, and what to check first
//	deepbay sim JOB.json           power on a simulated machine
//	deepbay plan JOB.json          find the best placement, and the alternatives
//	deepbay look JOB.json          list what is not known, and answer it
//	deepbay sheet SHEET.json...    judge machine sheets
//	deepbay version
//
// Exit status of check, expect, compare, diagnose and plan: 0 nothing stops, 1 something stops,
// differs, or there is no plan, 2 the file could not be used, 3 the search gave up.
package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"os/signal"
	"syscall"

	"github.com/spf13/cobra"
)

// version is set by the Makefile.
var version = "development"

func main() {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	os.Exit(run(ctx, os.Args[1:], os.Stdout, os.Stderr))
}

// errStopped ends a command with status 1 and no message: what is wrong was printed.
var errStopped = errors.New("stopped")

// run carries out a command line and returns the exit status.
func run(ctx context.Context, args []string, stdout, stderr io.Writer) int {
	root := &cobra.Command{
		Use:           "deepbay",
		Short:         "Plan, carry out and prove storage and memory upgrades",
		SilenceUsage:  true,
		SilenceErrors: true,
	}
	root.AddCommand(demoCommand(), serveCommand(), checkCommand(), expectCommand(), compareCommand(), diagnoseCommand(), simCommand(), probeCommand(), measureCommand(), verifyCommand(), orderCommand(), planCommand(), lookCommand(), sheetCommand(), readCommand(), backupCommand(), restoreCommand(), checkDataCommand(), rescueCommand(), archiveCommand(), bringBackCommand(), shopCommand(), ownerCommand(), &cobra.Command{
		Use: "version", Short: "Print the version", Args: cobra.NoArgs,
		Run: func(c *cobra.Command, _ []string) { fmt.Fprintln(c.OutOrStdout(), "deepbay", version) },
	})
	root.SetArgs(args)
	root.SetOut(stdout)
	root.SetErr(stderr)
	switch err := root.ExecuteContext(ctx); {
	case err == nil:
		return 0
	case errors.Is(err, errStopped):
		return 1
	case errors.Is(err, errGaveUp):
		return 3
	default:
		fmt.Fprintln(stderr, "deepbay:", language.Err(err))
		return 2
	}
}
