package main

import (
	"fmt"
	"strings"

	"github.com/spf13/cobra"

	"deepbay/internal/core/ask"
	"deepbay/internal/core/shorthand"
	"deepbay/internal/format"
)

func readCommand() *cobra.Command {
	var asPart bool
	c := &cobra.Command{
		Use:   "read WORDS...",
		Short: "Say what the words on a part or its label mean",
		Long: "Read prints what each word was taken for, what none says and what is open. It ends with 0\n" +
			"where the part is whole, 1 where something is open, 2 where a word means nothing.",
		Example: "  deepbay read 2Rx4 PC4-2400T-R 16GB\n  deepbay read --part x16 carrier 4x m.2 2280 no switch > carrier.part.json",
		Args:    cobra.MinimumNArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			text := strings.Join(args, " ")
			if asPart {
				got, list := shorthand.Keep(text)
				if len(list) > 0 {
					return list
				}
				b, err := format.Write(got.Part)
				if err != nil {
					return err
				}
				_, err = c.OutOrStdout().Write(b)
				return err
			}
			a, err := ask.Part(text)
			if err != nil {
				return err
			}
			reply := language.Reply(&a)
			fmt.Fprintln(c.OutOrStdout(), reply.Says)
			for _, l := range reply.Lines {
				fmt.Fprintf(c.OutOrStdout(), "  %s: %s\n", l.What, l.Value)
			}
			for _, q := range reply.Asks {
				fmt.Fprintf(c.OutOrStdout(), "  %s? %s\n", q.About, strings.Join(q.Choices, " / "))
			}
			if len(reply.Asks) > 0 {
				return errStopped
			}
			return nil
		},
	}
	c.Flags().BoolVar(&asPart, "part", false, "print the part as a file of the open format")
	return c
}
