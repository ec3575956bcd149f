// Command cuestart plans a squad's warm-up and times it back from the start.
package main

import (
	"context"
	"fmt"
	"os"
	"os/signal"
	"runtime/debug"
	"syscall"
	_ "time/tzdata" // time zones, also on a machine that has none

	"github.com/spf13/cobra"
)

func main() {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	root := &cobra.Command{
		Use:           "cuestart",
		Short:         "Plan a squad's warm-up, timed back from the start",
		SilenceUsage:  true,
		SilenceErrors: true,
	}
	root.CompletionOptions.HiddenDefaultCmd = true
	root.AddCommand(
		&cobra.Command{Use: "serve", Short: "Serve the site", Args: cobra.NoArgs,
			RunE: func(c *cobra.Command, _ []string) error { return serve(c.Context(), false) }},
		&cobra.Command{Use: "demo", Short: "Serve the site, with an invented club if there is none", Args: cobra.NoArgs,
			RunE: func(c *cobra.Command, _ []string) error { return serve(c.Context(), true) }},
		&cobra.Command{Use: "migrate", Short: "Bring the database up to date and end", Args: cobra.NoArgs,
			RunE: func(c *cobra.Command, _ []string) error { return migrate(c.Context()) }},
		&cobra.Command{Use: "letters",
			Short: "Print the letters that wait, where no mail server is set, and count them as sent",
			Args:  cobra.NoArgs, RunE: func(c *cobra.Command, _ []string) error { return letters(c.Context()) }},
		&cobra.Command{Use: "version", Short: "Print the version", Args: cobra.NoArgs,
			Run: func(*cobra.Command, []string) { fmt.Println("cuestart", version()) }},
	)
	root.AddCommand(engineCommands()...)
	if err := root.ExecuteContext(ctx); err != nil {
		fmt.Fprintln(os.Stderr, "cuestart:", err)
		os.Exit(exitCode(err))
	}
}

// malformed is an error in a file that was handed in: exit 2.
type malformed struct{ error }

func exitCode(err error) int {
	if _, ok := err.(malformed); ok {
		return 2
	}
	return 1
}

// version is the release, or the commit that was built.
func version() string {
	if info, ok := debug.ReadBuildInfo(); ok {
		for _, setting := range info.Settings {
			if setting.Key == "vcs.revision" && len(setting.Value) >= 12 {
				return release + " " + setting.Value[:12]
			}
		}
	}
	return release
}

const release = "0.1.0"
