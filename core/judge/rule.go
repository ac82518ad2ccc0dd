package judge

// Rule is the stable id of what a finding is about: a check of the gate, of a
// site or of the weather, or a statement of a rule pack. The set is closed: the
// contract lists it, and the interface has words for each.
type Rule string

// The rules.
const (
	RuleAccident           Rule = "accident"
	RuleAccidentReport     Rule = "accident-report"
	RuleAgricultural       Rule = "agricultural"
	RuleAircraftActive     Rule = "aircraft-active"
	RuleAirspace           Rule = "airspace"
	RuleAnswers            Rule = "answers" // several questions that nobody has answered
	RuleAttachments        Rule = "attachments"
	RuleBriefing           Rule = "briefing"
	RuleCamera             Rule = "camera"
	RuleCategory           Rule = "category"
	RuleClouds             Rule = "clouds"
	RuleCold               Rule = "cold"
	RuleCompass            Rule = "compass"
	RuleCondition          Rule = "condition"
	RuleControlLink        Rule = "control-link"
	RuleCrewOrder          Rule = "crew-order"
	RuleDefects            Rule = "defects"
	RuleDeltaT             Rule = "delta-t"
	RuleDirection          Rule = "direction"
	RuleDrift              Rule = "drift"
	RuleEnergised          Rule = "energised"
	RuleEnergy             Rule = "energy"
	RuleFamiliariseSite    Rule = "familiarise-site"
	RuleFirmware           Rule = "firmware"
	RuleFitness            Rule = "fitness"
	RuleGear               Rule = "gear"
	RuleGiveWay            Rule = "give-way"
	RuleGround             Rule = "ground"
	RuleGrounding          Rule = "grounding"
	RuleHazard             Rule = "hazard"
	RuleHazardousOperation Rule = "hazardous-operation"
	RuleHazmat             Rule = "hazmat"
	RuleHeat               Rule = "heat"
	RuleHeavy              Rule = "heavy"
	RuleHeight             Rule = "height"
	RuleHomeWind           Rule = "home-wind"
	RuleInsurance          Rule = "insurance"
	RuleInversion          Rule = "inversion"
	RuleJob                Rule = "job"
	RuleLandowner          Rule = "landowner"
	RuleLift               Rule = "lift"
	RuleLight              Rule = "light"
	RuleLineOfSight        Rule = "line-of-sight"
	RuleMakerLimits        Rule = "maker-limits"
	RuleMass               Rule = "mass"
	RuleMission            Rule = "mission"
	RuleMissionPlan        Rule = "mission-plan"
	RuleNight              Rule = "night"
	RuleNightTraining      Rule = "night-training"
	RuleOneAircraft        Rule = "one-aircraft"
	RuleOperator           Rule = "operator"
	RuleOtherPropellers    Rule = "other-propellers"
	RuleOverPeople         Rule = "over-people"
	RuleOwn                Rule = "own" // one of the crew, named by Finding.Own
	RulePackPractice       Rule = "pack-practice"
	RulePacks              Rule = "packs"
	RulePath               Rule = "path"
	RulePower              Rule = "power"
	RulePracticeLoad       Rule = "practice-load"
	RuleProgramme          Rule = "programme"
	RuleReadiness          Rule = "readiness"
	RuleRecords            Rule = "records"
	RuleRegistration       Rule = "registration"
	RuleRemoteID           Rule = "remote-id"
	RuleReturnHeight       Rule = "return-height"
	RuleRoles              Rule = "roles"
	RuleSector             Rule = "sector"
	RuleSite               Rule = "site"
	RuleSpeed              Rule = "speed"
	RuleSprayWind          Rule = "spray-wind"
	RuleSprayPlan          Rule = "spray-plan"
	RuleSpraySystem        Rule = "spray-system"
	RuleSticks             Rule = "sticks"
	RuleStructureRequest   Rule = "structure-request"
	RuleTakeOff            Rule = "take-off"
	RuleVehicle            Rule = "vehicle"
	RuleVisibility         Rule = "visibility"
	RuleWalkround          Rule = "walkround"
	RuleWear               Rule = "wear"
	RuleWeatherAge         Rule = "weather-age"
	RuleWind               Rule = "wind"
	RuleWorkOrders         Rule = "work-orders"
)

// AllRules lists the rules by name.
var AllRules = []Rule{RuleAccident, RuleAccidentReport, RuleAgricultural, RuleAircraftActive, RuleAirspace, RuleAnswers,
	RuleAttachments, RuleBriefing, RuleCamera, RuleCategory, RuleClouds, RuleCold, RuleCompass, RuleCondition,
	RuleControlLink, RuleCrewOrder, RuleDefects, RuleDeltaT, RuleDirection, RuleDrift, RuleEnergised, RuleEnergy,
	RuleFamiliariseSite, RuleFirmware, RuleFitness, RuleGear, RuleGiveWay, RuleGround, RuleGrounding, RuleHazard,
	RuleHazardousOperation, RuleHazmat, RuleHeat, RuleHeavy, RuleHeight, RuleHomeWind, RuleInsurance, RuleInversion,
	RuleJob, RuleLandowner, RuleLift, RuleLight, RuleLineOfSight, RuleMakerLimits, RuleMass, RuleMission, RuleMissionPlan,
	RuleNight, RuleNightTraining, RuleOneAircraft, RuleOperator, RuleOtherPropellers, RuleOverPeople, RuleOwn,
	RulePackPractice, RulePacks, RulePath, RulePower, RulePracticeLoad, RuleProgramme, RuleReadiness, RuleRecords,
	RuleRegistration, RuleRemoteID, RuleReturnHeight, RuleRoles, RuleSector, RuleSite, RuleSpeed, RuleSprayPlan,
	RuleSpraySystem, RuleSprayWind, RuleSticks, RuleStructureRequest, RuleTakeOff, RuleVehicle, RuleVisibility,
	RuleWalkround, RuleWear, RuleWeatherAge, RuleWind, RuleWorkOrders}
