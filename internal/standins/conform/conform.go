// Package conform tries a service on the network against the protocol that
// Mainstay speaks with its kind, as docs/protocols says it.
package conform

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"
	"strings"
	"time"

	"mainstay/core/metar"
	"mainstay/docs/protocols"
)

// Result is one thing that was tried. Why is empty when the service did it.
type Result struct {
	What string
	Why  string
}

// Service is what is tried.
type Service struct {
	URL  string
	Key  string
	Kind string // of protocols; empty: found out by what it answers
	// Write lets the check change something there: start and stop a charge on
	// Channel of the charger, or ask the desk for an authorisation.
	Write   bool
	Channel int
}

// ErrKind says that it could not be found out what the service is.
var ErrKind = errors.New("it answers none of GET /channels, GET /metar, GET /zones and GET /aircraft; say what it is with --as")

// paths are what each kind answers first.
var paths = map[string]string{protocols.Charger: "/channels", protocols.Weather: "/metar", protocols.Desk: "/zones",
	protocols.Aircraft: "/aircraft"}

// Run tries everything there is to try and says what came of it.
func Run(ctx context.Context, s Service) (kind string, out []Result, err error) {
	s.URL = strings.TrimRight(s.URL, "/")
	if s.Kind == "" {
		if s.Kind, err = s.find(ctx); err != nil {
			return "", nil, err
		}
	}
	t := &try{ctx: ctx, s: s}
	t.unkeyed()
	switch s.Kind {
	case protocols.Charger:
		t.charger()
	case protocols.Weather:
		t.weather()
	case protocols.Desk:
		t.desk()
	case protocols.Aircraft:
		t.aircraft()
	default:
		return "", nil, fmt.Errorf("%q is none of charger, weather, desk, aircraft", s.Kind)
	}
	return s.Kind, t.out, nil
}

func (s Service) find(ctx context.Context) (string, error) {
	for kind, path := range paths {
		if status, _, err := s.ask(ctx, http.MethodGet, path, nil, s.Key); err != nil {
			return "", err
		} else if status == http.StatusOK {
			return kind, nil
		}
	}
	return "", ErrKind
}

func (s Service) ask(ctx context.Context, method, path string, body any, key string) (int, []byte, error) {
	var b []byte
	if body != nil {
		var err error
		if b, err = json.Marshal(body); err != nil {
			return 0, nil, err
		}
	}
	req, err := http.NewRequestWithContext(ctx, method, s.URL+path, bytes.NewReader(b))
	if err != nil {
		return 0, nil, err
	}
	if key != "" {
		req.Header.Set("Authorization", "Bearer "+key)
	}
	if body != nil {
		req.Header.Set("Content-Type", "application/json")
	}
	client := http.Client{Timeout: 3 * time.Second, CheckRedirect: func(*http.Request,
		[]*http.Request) error {
		return http.ErrUseLastResponse
	}}
	res, err := client.Do(req)
	if err != nil {
		return 0, nil, err
	}
	defer func() { _ = res.Body.Close() }()
	text, err := io.ReadAll(io.LimitReader(res.Body, 2<<20))
	return res.StatusCode, text, err
}

// try gathers what came of each step.
type try struct {
	ctx context.Context
	s   Service
	out []Result
}

func (t *try) note(what string, err error) bool {
	r := Result{What: what}
	if err != nil {
		r.Why = err.Error()
	}
	t.out = append(t.out, r)
	return err == nil
}

// call is what is asked of a service.
type call struct {
	method, path string
	body         any
}

// want asks and holds the answer against a message of the protocol; no message
// means that the answer does not matter.
func (t *try) want(what string, c call, message string, status ...int) []byte {
	got, text, err := t.s.ask(t.ctx, c.method, c.path, c.body, t.s.Key)
	if err == nil && !has(status, got) {
		err = fmt.Errorf("it answers %d instead of %v", got, status)
	}
	if err == nil && message != "" && got == http.StatusOK {
		err = protocols.Fits(t.s.Kind, message, text)
	}
	if !t.note(what, err) {
		return nil
	}
	return text
}

func has(all []int, one int) bool {
	for _, x := range all {
		if x == one {
			return true
		}
	}
	return false
}

// unkeyed holds that a service which wants a key does not answer without it.
func (t *try) unkeyed() {
	if t.s.Key == "" {
		return
	}
	path := paths[t.s.Kind]
	status, _, err := t.s.ask(t.ctx, http.MethodGet, path, nil, "not the key")
	if err == nil && status == http.StatusOK {
		err = errors.New("it answers with a wrong key just the same")
	}
	t.note("a wrong key is refused", err)
}

func (t *try) charger() {
	text := t.want("GET /channels", call{method: http.MethodGet, path: "/channels"}, "channels", http.StatusOK)
	t.want("a channel that is none is refused", call{method: http.MethodPost, path: "/channels/9999/stop"}, "",
		http.StatusNotFound,
		http.StatusBadRequest)
	if text == nil || !t.s.Write {
		return
	}
	start := func(session string) map[string]any {
		return map[string]any{"session": session, "pack": "check", "cells": 6, "capacity_mah": 12000, "full_mv": 4200,
			"empty_mv": 3500, "from_percent": 40, "to_percent": 41}
	}
	at := fmt.Sprintf("/channels/%d", t.s.Channel)
	t.want("a start that cannot be used is refused", call{
		method: http.MethodPost, path: at + "/start", body: map[string]any{"session": ""},
	}, "",
		http.StatusBadRequest, http.StatusUnprocessableEntity)
	t.want("POST "+at+"/start", call{method: http.MethodPost, path: at + "/start", body: start("check-1")}, "",
		http.StatusOK, http.StatusNoContent)
	t.want("the same session again changes nothing", call{
		method: http.MethodPost, path: at + "/start", body: start("check-1"),
	}, "", http.StatusOK,
		http.StatusNoContent)
	t.want("another session is refused while it charges", call{
		method: http.MethodPost, path: at + "/start", body: start("check-2"),
	}, "",
		http.StatusConflict)
	text = t.want("GET /channels while it charges", call{method: http.MethodGet, path: "/channels"}, "channels",
		http.StatusOK)
	var all struct {
		Channels []struct {
			Channel int
			Session string
		}
	}
	err := errors.New("the channel does not name the session it was given")
	if json.Unmarshal(text, &all) == nil {
		for _, c := range all.Channels {
			if c.Channel == t.s.Channel && c.Session == "check-1" {
				err = nil
			}
		}
	}
	t.note("the session is reported as it was given", err)
	t.want("POST "+at+"/stop", call{method: http.MethodPost, path: at + "/stop"}, "", http.StatusOK, http.StatusNoContent)
	t.want("a stop twice is one", call{method: http.MethodPost, path: at + "/stop"}, "", http.StatusOK,
		http.StatusNoContent)
}

func (t *try) weather() {
	if text := t.want("GET /metar", call{method: http.MethodGet, path: "/metar"}, "", http.StatusOK); text != nil {
		_, err := metar.DecodeAll(string(text))
		t.note("the report can be read", err)
	}
	t.want("GET /forecast", call{method: http.MethodGet, path: "/forecast"}, "forecast", http.StatusOK)
}

func (t *try) desk() {
	text := t.want("GET /zones", call{method: http.MethodGet, path: "/zones?lat=46.31&lon=-119.7&radius_km=15"}, "zones",
		http.StatusOK)
	t.want("a request that it never got is not known", call{method: http.MethodGet, path: "/requests/never-made"}, "",
		http.StatusNotFound)
	if text == nil || !t.s.Write {
		return
	}
	var zones struct {
		Features []struct {
			Properties struct{ ID string }
		}
	}
	if err := json.Unmarshal(text, &zones); err != nil || len(zones.Features) == 0 {
		t.note("a zone to ask for", errors.New("it gives no zone round 46.31, -119.7; requests were not tried"))
		return
	}
	from := time.Now().UTC().Add(time.Hour).Truncate(time.Second)
	ask := map[string]any{"ref": fmt.Sprintf("check-%d", time.Now().UnixNano()), "zone": zones.Features[0].Properties.ID,
		"ceiling_m": 60, "from": from, "to": from.Add(time.Hour)}
	first := t.want("POST /requests", call{method: http.MethodPost, path: "/requests", body: ask}, "answer", http.StatusOK)
	again := t.want("the same ref twice is one request", call{
		method: http.MethodPost, path: "/requests", body: ask,
	}, "answer", http.StatusOK)
	var a, b struct{ Ref, Number string }
	if json.Unmarshal(first, &a) == nil && json.Unmarshal(again, &b) == nil && a.Number != "" && a.Number != b.Number {
		t.note("it is granted once", errors.New("the same request has two numbers"))
	}
	t.want("GET /requests/{ref}", call{method: http.MethodGet, path: "/requests/" + ask["ref"].(string)}, "answer",
		http.StatusOK)
	t.want("a request without a ceiling is refused", call{
		method: http.MethodPost, path: "/requests", body: map[string]any{"ref": "check-bad", "zone": "x"},
	}, "", http.StatusBadRequest, http.StatusUnprocessableEntity)
	t.want("POST /calls", call{
		method: http.MethodPost, path: "/calls", body: map[string]any{"number": "check", "kind": "start"},
	}, "call",
		http.StatusOK)
	t.want("a call of no kind is refused", call{
		method: http.MethodPost, path: "/calls", body: map[string]any{"number": "check", "kind": "moon"},
	},
		"", http.StatusBadRequest, http.StatusUnprocessableEntity)
}
