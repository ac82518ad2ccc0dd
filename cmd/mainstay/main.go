// Command mainstay serves the crew's working tool.
package main

import (
	"context"
	"fmt"
	"os"
	"os/signal"
	"syscall"

	"github.com/spf13/cobra"
)

func main() {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	root := &cobra.Command{Use: "mainstay", Short: "May this aircraft fly now, and if not, what must be done first?",
		SilenceUsage: true, SilenceErrors: true}
	root.AddCommand(serveCommand(), demoCommand(), migrateCommand(), verifyCommand(), exportCommand(), standinCommand(),
		resetCommand())
	if err := root.ExecuteContext(ctx); err != nil {
		fmt.Fprintln(os.Stderr, "mainstay:", err)
		os.Exit(1)
	}
}
