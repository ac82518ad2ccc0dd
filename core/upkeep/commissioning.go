package upkeep

// CommissioningID is the task by which a new or rebuilt aircraft is accepted.
const CommissioningID = "commissioning"

// Commissioning is that task where the programme of a type has none of its own:
// what is set, sensed and turned is tried on the ground, one thing at a time,
// before anybody lifts off, and then flown without load and, with a tank, with
// load (usual practice; the maker's list wins).
func Commissioning(hasTank bool) Task {
	t := Task{ID: CommissioningID, Title: "Acceptance of a new or rebuilt aircraft", Station: "frame",
		After: []Event{Built}, Grounds: true,
		Why: "Nobody knows yet that everything on it is what it should be, sits where it should, and turns the right way.",
		Steps: []Step{
			{ID: "parameters", Text: "Parameters compared with a known-good set of the type; every difference explained."},
			{ID: "sticks", Text: "Sticks calibrated; channels and switches do what the map says; stick mode is the pilot's own."},
			{ID: "motors", Text: "Propellers off: each motor by itself, in its place, in its direction; signal mode as the speed controllers want it."},
			{ID: "compass", Text: "Compass calibrated away from iron, by as many people as its mass asks for; heading agrees with the ground."},
			{ID: "sensors", Text: "Level, satellites, obstacle sensors and lights looked at on the controller, one after another."},
			{ID: "return", Text: "What it does when the link or the position is lost is set, read back and written down."},
			{ID: "activation", Text: "Activated and signed in, with a network, before it goes to the field; identification seen to broadcast."},
			{ID: "mass", Text: "Weighed ready to fly, and the mass put on file."},
			{ID: "surfaces", Text: "Ground run: tilt gently by stick and see it answer the right way."},
		}, Acceptance: []Load{NoLoad}}
	if hasTank {
		t.Steps = append(t.Steps, Step{ID: "dispensing",
			Text: "Load cell zeroed and checked with a known mass; pump, flow meter and spreader answer their keys, with clean water."})
		t.Acceptance = append(t.Acceptance, Loaded)
	}
	return t
}
