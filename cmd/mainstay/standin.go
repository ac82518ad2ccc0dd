package main

import (
	"context"
	"fmt"
	"net"
	"net/http"
	"strings"
	"time"

	"github.com/spf13/cobra"

	"mainstay/core/geo"
	"mainstay/internal/standins"
	"mainstay/internal/standins/aircraft"
	"mainstay/internal/standins/charger"
	"mainstay/internal/standins/desk"
	"mainstay/internal/standins/weather"
)

// chargerChannels is how many channels the stand-in has.
const chargerChannels = 4

func startCharger(ctx context.Context, address string, speed float64) (string, error) {
	return serveAt(ctx, "charger", address, charger.New(chargerChannels, speed, time.Now))
}

// serveAt serves beside the application until ctx ends and returns where.
func serveAt(ctx context.Context, name, address string, h http.Handler) (string, error) {
	l, err := (&net.ListenConfig{}).Listen(ctx, "tcp", address)
	if err != nil {
		return "", fmt.Errorf("%s: %w", name, err)
	}
	srv := &http.Server{Handler: h, ReadHeaderTimeout: 5 * time.Second}
	go func() {
		<-ctx.Done()
		_ = srv.Close()
	}()
	go func() { _ = srv.Serve(l) }()
	return "http://" + l.Addr().String(), nil
}

// serveStandin serves a stand-in until it is stopped.
func serveStandin(cmd *cobra.Command, name, address string, h http.Handler) error {
	at, err := serveAt(cmd.Context(), name, address, h)
	if err != nil {
		return err
	}
	fmt.Fprintln(cmd.OutOrStdout(), name, "stand-in at", at)
	<-cmd.Context().Done()
	return nil
}

func standinCommand() *cobra.Command {
	c := &cobra.Command{Use: "standin", Short: "Serve a simulated outside device, or check a real one"}
	c.AddCommand(checkCommand())
	var key string
	c.PersistentFlags().StringVar(&key, "key", "", "answer only whoever knows it; for check: the key to send")
	var address string
	var speed float64
	sub := &cobra.Command{Use: "charger", Short: "A charger on the network", Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			return serveStandin(cmd, "charger", address, standins.Keyed(charger.New(chargerChannels, speed, time.Now), key))
		}}
	sub.Flags().StringVar(&address, "address", "127.0.0.1:8090", "host:port to listen on")
	sub.Flags().Float64Var(&speed, "speed", 1, "times faster than the clock")
	c.AddCommand(sub)
	var deskAt string
	sub = &cobra.Command{Use: "desk", Short: "An airspace desk", Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			return serveStandin(cmd, "desk", deskAt, standins.Keyed(desk.New(time.Now), key))
		}}
	sub.Flags().StringVar(&deskAt, "address", "127.0.0.1:8092", "host:port to listen on")
	c.AddCommand(sub)
	var aircraftAt string
	var serials []string
	var lat, lon, flightSpeed float64
	sub = &cobra.Command{Use: "aircraft", Short: "A link to aircraft", Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			var crafts []aircraft.Craft
			for _, s := range serials {
				crafts = append(crafts, aircraft.Craft{Serial: s, Motors: 4, Cells: 6, At: geo.Point{Lat: lat, Lon: lon}})
			}
			return serveStandin(cmd, "aircraft", aircraftAt, standins.Keyed(aircraft.New(flightSpeed, time.Now, crafts...), key))
		}}
	sub.Flags().StringVar(&aircraftAt, "address", "127.0.0.1:8093", "host:port to listen on")
	sub.Flags().StringSliceVar(&serials, "serial", []string{"SIM-1"}, "serial numbers of the aircraft that it reaches")
	sub.Flags().Float64Var(&lat, "lat", 46.31, "where they stand, degrees")
	sub.Flags().Float64Var(&lon, "lon", -119.7, "where they stand, degrees")
	sub.Flags().Float64Var(&flightSpeed, "speed", 1, "times faster than the clock")
	c.AddCommand(sub)
	var weatherAt, scenario string
	sub = &cobra.Command{Use: "weather", Short: "A weather service", Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			svc := weather.New(time.Now)
			if err := svc.Set(weather.Faults{Scenario: scenario}); err != nil {
				return err
			}
			return serveStandin(cmd, "weather", weatherAt, standins.Keyed(svc, key))
		}}
	sub.Flags().StringVar(&weatherAt, "address", "127.0.0.1:8091", "host:port to listen on")
	sub.Flags().StringVar(&scenario, "scenario", weather.Calm, "one of "+strings.Join(weather.Scenarios, ", "))
	c.AddCommand(sub)
	return c
}
