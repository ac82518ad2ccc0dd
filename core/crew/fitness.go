package crew

import (
	"slices"
	"time"
)

// Post is what a person does in a job.
type Post string

// The posts.
const (
	InCommand Post = "rpic"     // remote pilot in command
	AtSticks  Post = "pilot"    // flies under the eyes of who is in command
	Observer  Post = "observer" // keeps the aircraft in sight
	Ground    Post = "ground"   // loads, refills, keeps people away
)

// AllPosts lists the posts.
var AllPosts = []Post{InCommand, AtSticks, Observer, Ground}

// Flies reports whether the post belongs to the flight crew.
func (p Post) Flies() bool { return p == InCommand || p == AtSticks || p == Observer }

// Words is the post as people say it.
func (p Post) Words() string {
	return map[Post]string{InCommand: "remote pilot in command", AtSticks: "pilot at the controls", Observer: "observer",
		Ground: "ground crew"}[p]
}

// Point is one thing a person asks oneself before flying.
type Point struct {
	ID       string `json:"id"`
	Question string `json:"question"`
	Against  string `json:"against"` // what speaks against flying when it is not so
}

// FitnessPoints are the things asked by usual practice; AskedUnder gives the
// words of a law to the one about alcohol.
var FitnessPoints = []Point{
	{"illness", "Free of illness", "illness"},
	{"medication", "No medicine that dulls or makes drowsy", "medication"},
	{"stress", "No worry that keeps the mind elsewhere", "stress"},
	{"alcohol", "No alcohol for 8 hours", "alcohol"},
	{"fatigue", "Slept and awake", "fatigue"},
	{"food", "Eaten and drunk enough", "food or water"},
}

// AskedUnder are the points with the question about alcohol as a law puts it;
// empty keeps the usual one.
func AskedUnder(alcohol string) []Point {
	out := slices.Clone(FitnessPoints)
	for i := range out {
		if out[i].ID == "alcohol" && alcohol != "" {
			out[i].Question = alcohol
		}
	}
	return out
}

// Fitness is what a person declared for a day.
type Fitness struct {
	At      time.Time
	Against []string // ids of the points that are not so; empty: fit
}

// Words names what speaks against flying.
func (f Fitness) Words() []string {
	var out []string
	for _, p := range FitnessPoints {
		for _, a := range f.Against {
			if a == p.ID {
				out = append(out, p.Against)
			}
		}
	}
	return out
}
