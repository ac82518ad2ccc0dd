package judge

// RemedyKind is what is done about a finding. The set is closed: the contract
// lists it, and the interface knows a place for each.
type RemedyKind string

// The remedies.
const (
	FlyAcceptance    RemedyKind = "acceptance" // fly as acceptance flight of the order ID
	OpenAircraft     RemedyKind = "aircraft"
	OpenBriefing     RemedyKind = "briefing" // of the job ID
	ChoosePacks      RemedyKind = "choose-packs"
	OpenDefect       RemedyKind = "defect"
	OpenDocuments    RemedyKind = "documents" // of the person ID, or of the crew
	EnterWind        RemedyKind = "enter-wind"
	DeclareFitness   RemedyKind = "fitness"
	OpenFlight       RemedyKind = "flight"
	LogFlight        RemedyKind = "flight-log"
	OpenGear         RemedyKind = "gear"
	OpenJob          RemedyKind = "job"
	DecideInJob      RemedyKind = "job-decide"
	EnterJobMass     RemedyKind = "job-mass"
	AnswerInJob      RemedyKind = "job-rules"
	PlanJob          RemedyKind = "jobs"
	EnterMass        RemedyKind = "mass"    // of the aircraft ID, as weighed
	OpenMission      RemedyKind = "mission" // ID is job/aircraft
	OpenOrder        RemedyKind = "order"
	LookAtPack       RemedyKind = "pack-look"
	ReadPack         RemedyKind = "pack-read"
	OpenPerson       RemedyKind = "person"
	OpenProgramme    RemedyKind = "programme"
	ReplacePropeller RemedyKind = "propellers"
	OpenRack         RemedyKind = "rack"
	OpenReadiness    RemedyKind = "readiness" // of the person ID
	OpenRelease      RemedyKind = "release"
	OpenReports      RemedyKind = "reports"
	ReturnToService  RemedyKind = "return"
	OpenSite         RemedyKind = "site"
	OpenAirspace     RemedyKind = "site-airspace"
	OpenWayHome      RemedyKind = "site-home"
	ReadWeather      RemedyKind = "site-weather"
	OpenSprayChecks  RemedyKind = "spray-checks" // of the aircraft ID
	OpenSprayPlan    RemedyKind = "spray-plan"   // ID is job/aircraft
	OpenStation      RemedyKind = "station"      // ID is aircraft/station
	OpenTask         RemedyKind = "task"         // ID is aircraft/task
	StartTurnaround  RemedyKind = "turnaround"
	StartWalkround   RemedyKind = "walkround"
	ResumeWalkround  RemedyKind = "walkround-resume"
)

// AllRemedies lists the remedies by name.
var AllRemedies = []RemedyKind{FlyAcceptance, OpenAircraft, OpenBriefing, ChoosePacks, OpenDefect, OpenDocuments,
	EnterWind, DeclareFitness, OpenFlight, LogFlight, OpenGear, OpenJob, DecideInJob, EnterJobMass, AnswerInJob,
	PlanJob, EnterMass, OpenMission, OpenOrder, LookAtPack, ReadPack, OpenPerson, OpenProgramme, ReplacePropeller,
	OpenRack, OpenReadiness, OpenRelease, OpenReports, ReturnToService, OpenSite, OpenAirspace, OpenWayHome, ReadWeather,
	OpenSprayChecks, OpenSprayPlan, OpenStation, OpenTask, StartTurnaround,
	StartWalkround, ResumeWalkround}
