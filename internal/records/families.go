package records

import "fmt"

// Family is a set of rows whose state is hashed under one key: the rows of a
// table one by one, or those that belong to one thing together.
type Family struct {
	Name    string
	Table   string
	Key     string // expression over a row x by which the rows are found
	UUID    bool   // the key is a uuid, else text
	Content string // what of a row is hashed, as jsonb
	Word    string // for sentences: "the flight"
}

// by is a family of single rows found by their id, or of rows that belong to
// the thing in that column.
func by(table, column, word string) Family {
	return Family{Name: table, Table: table, Key: "x." + column, UUID: true, Content: "to_jsonb(x)", Word: word}
}

func version(table, key, word string) Family {
	return Family{Name: table, Table: table, Key: "x." + key + " || '/' || x.version", Content: "to_jsonb(x)", Word: word}
}

func daily(table, word string) Family {
	return Family{Name: table, Table: table, Key: "x.day::text", Content: "to_jsonb(x)", Word: word}
}

// Families is everything of which the chain knows the state. Counters of parts
// are a family of their own, per aircraft, because every flight changes them.
var Families = []Family{
	by("flights", "id", "the flight"), by("flight_use", "flight_id",
		"what was put on things by the flight"), by("flight_corrections", "id", "the correction"),
	by("flight_events", "id", "the event in flight"), by("releases", "id", "the release"), by("walkrounds", "id",
		"the walkround"), by("walkround_entries", "walkround_id", "the entries of the walkround"),
	by("aircraft", "id", "the aircraft"), by("groundings", "id", "the grounding"), by("defects", "id",
		"the defect"), by("deferrals", "id", "the deferral"),
	by("work_orders", "id", "the work order"), by("work_entries", "order_id",
		"the steps of the work order"), by("work_used", "id", "what the work used"),
	by("acceptance_flights", "order_id", "the acceptance flights of the work order"), by("task_done", "aircraft_id",
		"the tasks done on the aircraft"),
	{Name: "parts", Table: "parts", Key: "x.id", UUID: true,
		Content: "to_jsonb(x) - '{seconds,flights,landings,cycles,litres}'::text[]", Word: "the part"},
	{Name: "part_counters", Table: "parts", Key: "coalesce(x.aircraft_id, x.id)", UUID: true,
		Content: "jsonb_build_array(x.id, x.seconds, x.flights, x.landings, x.cycles, x.litres)",
		Word:    "the counters of the parts on the aircraft, or of the loose part,"},
	by("part_moves", "id", "the fitting of a part"), by("packs", "id", "the pack"), by("pack_readings", "id",
		"the reading of a pack"), by("pack_looks", "id", "the look at a pack"), by("charges", "id", "the charge of a pack"),
	by("firmware_installed", "thing_id", "the firmware of the aircraft"), by("calibrations", "id",
		"the calibration"), by("stock_lines", "id", "the stock line"),
	{Name: "part_approvals", Table: "part_approvals", Key: "x.kind || '/' || x.type_key", Content: "to_jsonb(x)",
		Word: "the approval of parts"},
	by("people", "id", "the person"), {Name: "crew", Table: "crew", Key: "'the crew'", Content: "to_jsonb(x)",
		Word: "the settings of"},
	by("documents", "id", "the document"), by("fitness", "id", "the declaration of fitness"), by("practice", "id",
		"the practice"), by("local_rules", "id", "the crew's own rule"), by("incident_reports", "id",
		"the report to the authority"),
	by("jobs", "id", "the job"), by("job_aircraft", "job_id", "the aircraft of the job"), by("job_people", "job_id",
		"the people of the job"), by("job_answers", "job_id", "the answers of the job"),
	by("job_kit", "job_id", "the kit of the job"), by("job_gear", "job_id", "the gear of the job"), by("job_decisions",
		"id", "the decision"), by("briefings", "id", "the briefing"), by("briefing_signatures", "briefing_id",
		"the signatures of the briefing"),
	by("sites", "id", "the site"), by("site_features", "id", "the thing on a site"), by("site_terrain", "site_id",
		"the terrain of the site"), by("site_weather", "id", "the weather report"), by("site_airspace", "site_id",
		"the look at the airspace of the site"),
	by("zones", "id", "the airspace zone"), by("authorisations", "id", "the authorisation"), by("authorisation_calls",
		"id", "the call"),
	by("nozzles", "id", "the kind of nozzle"), by("spray_plans", "id", "the spray plan"), by("spray_done", "id",
		"what was sprayed"), by("spray_fills", "id", "the fill"), by("spray_records", "id", "the spray record"),
	by("spray_checks", "id", "the check of the spray system"), by("cameras", "id", "the camera"),
	by("canopies", "id", "the canopy"), by("mission_plans", "id", "the mission plan"),
	by("mission_reads", "id", "the mission read back"),
	by("camera_cards", "id", "the camera card"), by("mission_flown", "id", "the mission flown"), by("mission_findings",
		"id", "the finding on a picture"), by("weighings", "id", "what was weighed"),
	version("aircraft_types", "key", "the type"), version("checklists", "type_key", "the checklist"), version("programmes",
		"type_key", "the programme"), version("firmware_sets", "type_key", "the tested firmware"),
	by("photos", "id", "the photo"), by("gear", "id", "the gear"), by("chargers", "id", "the charger"), daily("evenings",
		"the evening of"), daily("evening_sorties", "the sorties planned for"), daily("evening_ticks", "the ticks of"),
}

// Outside are the tables of which the chain knows nothing, and why.
var Outside = map[string]string{
	"records": "the chain itself", "seals": "the chain itself", "row_states": "bound by the seals",
	"row_touched": "empty but inside a transaction",
	"sessions":    "come and go", "attempts": "counts of wrong tries", "devices": "for counting wrong tries",
	"presses": "so that each is taken once; what it did is in its own table", "background_work": "how far work is",
	"pack_outlooks": "computed again from the readings", "goose_db_version": "of the schema",
}

// text is the key as text.
func (f Family) text() string {
	if f.UUID {
		return f.Key + "::text"
	}
	return f.Key
}

// hashed selects key and hash of the rows of the family as they are; where
// narrows them.
func (f Family) hashed(where string) string {
	return fmt.Sprintf(`select %s as key, sha256(convert_to(string_agg((%s)::text, E'\n' order by (%s)::text collate "C"), 'UTF8')) as hash from %s x %s group by 1`,
		f.text(), f.Content, f.Content, f.Table, where)
}

// at narrows hashed to the keys in the argument with that number.
func (f Family) at(arg int) string {
	if f.UUID {
		return fmt.Sprintf("where %s = any($%d::text[]::uuid[])", f.Key, arg)
	}
	return fmt.Sprintf("where %s = any($%d::text[])", f.Key, arg)
}
