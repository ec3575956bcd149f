package main

import (
	"encoding/json"
	"fmt"
	"io"
	"os"

	"github.com/spf13/cobra"

	"cuestart/core/runin"
)

// maxInput is the largest file that is read, in bytes.
const maxInput = 16 << 20

func fitCommand() *cobra.Command {
	steps := 0
	command := &cobra.Command{Use: "fit FILE|-", Short: "Fit a run-in problem: JSON in, JSON out", Args: cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			var problem runin.Problem
			if err := readJSON(args[0], &problem); err != nil {
				return malformed{err}
			}
			if err := problem.Validate(); err != nil {
				return malformed{err}
			}
			result, err := runin.Fit(c.Context(), &problem, steps)
			if err != nil {
				return malformed{err}
			}
			return json.NewEncoder(os.Stdout).Encode(result)
		}}
	command.Flags().IntVar(&steps, "steps", 0, "how many steps the search may take; 0: by the size of the problem")
	return command
}

// readJSON reads one JSON value of known fields from a file, or from the
// standard input where the name is "-".
func readJSON(name string, into any) error {
	var from io.Reader = os.Stdin
	if name != "-" {
		file, err := os.Open(name)
		if err != nil {
			return fmt.Errorf("%s cannot be read: %w", name, err)
		}
		defer file.Close()
		from = file
	}
	limited := &io.LimitedReader{R: from, N: maxInput + 1}
	decoder := json.NewDecoder(limited)
	decoder.DisallowUnknownFields()
	if err := decoder.Decode(into); err != nil {
		if limited.N <= 0 {
			return fmt.Errorf("%s is larger than %d MB", name, maxInput>>20)
		}
		return fmt.Errorf("%s is not a problem: %w", name, err)
	}
	if _, err := decoder.Token(); err != io.EOF {
		return fmt.Errorf("%s goes on after its end", name)
	}
	return nil
}
