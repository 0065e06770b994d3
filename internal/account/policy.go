package account

import "fmt"

// Need is what an operation asks of whoever calls it. What is not listed below is refused to everybody.
type Need int

const (
	Refused Need = iota // nobody may
	Anybody             // without an account
	Member              // with an account
	Read                // a role at the site
	Fit                 // planner or fitter of the site
	Plan                // planner of the site
	Company             // planner of the company
	ByLink              // with a link for customers
)

// Place is where an operation's path names the site.
type Place int

const (
	Nowhere Place = iota
	AtSite        // {id} is a site
	AtPlan        // {id} is a plan of one
)

// Rule is what an operation needs, and where.
type Rule struct {
	Need
	Place
}

// rules says what every operation of the API needs, by its id. This is the one place that decides.
var rules = map[string]Rule{
	// The server, and how to come in.
	"health": {Anybody, Nowhere}, "ready": {Anybody, Nowhere}, "format": {Anybody, Nowhere}, "me": {Anybody, Nowhere},
	"signIn": {Anybody, Nowhere}, "signOut": {Anybody, Nowhere},
	"beginPasskey": {Anybody, Nowhere}, "signInByPasskey": {Anybody, Nowhere},
	"invitation": {Anybody, Nowhere}, "accept": {Anybody, Nowhere},

	// One's own account.
	"changePassword": {Member, Nowhere}, "removePassword": {Member, Nowhere}, "newCode": {Member, Nowhere}, "useCode": {Member, Nowhere},
	"removeCode": {Member, Nowhere},
	"passkeys":   {Member, Nowhere}, "newPasskey": {Member, Nowhere}, "addPasskey": {Member, Nowhere}, "removePasskey": {Member, Nowhere},
	"seats": {Member, Nowhere}, "leave": {Member, Nowhere},
	"tokens": {Member, Nowhere}, "makeToken": {Member, Nowhere}, "endToken": {Member, Nowhere},

	// The company.
	"askTwo": {Company, Nowhere}, "people": {Company, Nowhere}, "invite": {Company, Nowhere}, "setRoles": {Company, Nowhere},
	"resetPassword": {Company, Nowhere},
	"removePerson":  {Company, Nowhere}, "endSeats": {Company, Nowhere}, "audit": {Company, Nowhere}, "auditFile": {Company, Nowhere},
	"company": {Member, Nowhere}, "logo": {Member, Nowhere},
	"nameCompany": {Company, Nowhere}, "setLogo": {Company, Nowhere}, "removeLogo": {Company, Nowhere},
	"takings": {Read, AtPlan}, "take": {Read, AtPlan}, // of another site, which is looked at too
	"companyFigures": {Company, Nowhere},
	"howRight":       {Member, Nowhere}, "setLearns": {Company, Nowhere},

	// Links for customers.
	"links": {Plan, AtSite}, "makeLink": {Plan, AtSite}, "endLink": {Plan, AtSite}, "viewings": {Plan, AtSite},
	"unlock": {ByLink, Nowhere}, "shared": {ByLink, Nowhere}, "sharedPaper": {ByLink, Nowhere},

	// Sites as a whole. The list and the stream hold only what whoever asks may read.
	"listSites": {Member, Nowhere}, "searchSites": {Member, Nowhere}, "sitesEstimated": {Member, Nowhere}, "changes": {Member, Nowhere},
	"markSites": {Member, Nowhere}, "exportSites": {Member, Nowhere}, "sitesFindings": {Member, Nowhere}, // each looks at every site named
	"searches": {Member, Nowhere}, "keepSearch": {Member, Nowhere}, "forgetSearch": {Member, Nowhere},
	"importSite": {Company, Nowhere}, "openSite": {Company, Nowhere}, "draftOpening": {Company, Nowhere}, "duplicateSite": {Company, AtSite},
	"getSite": {Read, AtSite}, "present": {Read, AtSite}, "siteVerdict": {Read, AtSite}, "variants": {Read, AtSite},
	"compare": {Read, AtSite}, "compareFile": {Read, AtSite}, "comparedRibbons": {Read, AtSite},
	"archiveSite": {Plan, AtSite}, "adopt": {Plan, AtSite}, "makeVariant": {Plan, AtSite}, "importVariant": {Plan, AtSite},
	"removeVariant": {Plan, AtSite},

	// What is worked out of what is sent along.
	"rates": {Member, Nowhere}, "sample": {Member, Nowhere}, "beginnings": {Member, Nowhere}, "readHours": {Member, Nowhere},
	"measureClip": {Member, Nowhere}, "measureNight": {Member, Nowhere}, "curve": {Member, Nowhere},

	// A plan, read.
	"getPlan": {Read, AtPlan}, "planVersion": {Read, AtPlan}, "alerts": {Read, AtPlan}, "exportTable": {Read, AtPlan}, "table": {Read, AtPlan},
	"course": {Read, AtPlan}, "patchCost": {Read, AtPlan}, "picture": {Read, AtPlan}, "getPicture": {Read, AtPlan}, "disk": {Read, AtPlan},
	"draft": {Read, AtPlan}, "entered": {Read, AtPlan}, "exportPlan": {Read, AtPlan}, "exportBundle": {Read, AtPlan}, "fixes": {Read, AtPlan},
	"freeIDs": {Read, AtPlan}, "wrongWay": {Read, AtPlan}, "knowing": {Read, AtPlan}, "readLog": {Read, AtPlan}, "whatIf": {Read, AtPlan},
	"reach": {Read, AtPlan}, "reachProgress": {Read, AtPlan}, "rehearse": {Read, AtPlan}, "rehearsedBeside": {Read, AtPlan},
	"rehearsedEvent": {Read, AtPlan}, "rehearsedFile": {Read, AtPlan}, "rehearsedFootage": {Read, AtPlan}, "rehearsedOdds": {Read, AtPlan},
	"rehearsedWorst": {Read, AtPlan}, "history": {Read, AtPlan}, "revision": {Read, AtPlan}, "differences": {Read, AtPlan},
	"spare": {Read, AtPlan}, "exportSpecialDays": {Read, AtPlan}, "specialDates": {Read, AtPlan}, "readSpecialDays": {Read, AtPlan},
	"readTable": {Read, AtPlan}, "tryCells": {Read, AtPlan}, "takeOff": {Read, AtPlan}, "tideOf": {Read, AtPlan}, "ties": {Read, AtPlan},
	"triggers": {Read, AtPlan}, "uses": {Read, AtPlan}, "readWeek": {Read, AtPlan}, "exportWeek": {Read, AtPlan}, "year": {Read, AtPlan},
	"sheets": {Read, AtPlan}, "papers": {Read, AtPlan}, "paper": {Read, AtPlan}, "handoverFile": {Read, AtPlan},
	"measured": {Read, AtPlan}, "readFound": {Read, AtPlan}, "missed": {Read, AtPlan}, "corrections": {Read, AtPlan},
	"measuredFile": {Read, AtPlan},
	"devices":      {Read, AtPlan}, "heldDevice": {Read, AtPlan}, "takeFromDevice": {Read, AtPlan}, "deviceCalls": {Read, AtPlan},
	"walkTest": {Read, AtPlan}, "walked": {Read, AtPlan}, "walkCode": {Read, AtPlan},

	// A plan, carried out.
	"tick": {Fit, AtPlan}, "printed": {Fit, AtPlan}, "keepWalked": {Fit, AtPlan},

	// Devices, spoken with.
	"findDevices": {Fit, AtPlan}, "setDevice": {Fit, AtPlan}, "removeDevice": {Fit, AtPlan}, "readDevice": {Fit, AtPlan},
	"writeDevice": {Fit, AtPlan}, "putBackDevice": {Fit, AtPlan}, "measureDevice": {Fit, AtPlan}, "stopDevice": {Fit, AtPlan},
	"stillFromDevice": {Fit, AtPlan}, "listenDevice": {Fit, AtPlan},

	// A plan, changed.
	"edit": {Plan, AtPlan}, "undo": {Plan, AtPlan}, "redo": {Plan, AtPlan}, "returnTo": {Plan, AtPlan}, "takeBack": {Plan, AtPlan},
	"nameRevision": {Plan, AtPlan},
	"addPicture":   {Fit, AtPlan}, "carry": {Plan, AtPlan}, "copyChannels": {Plan, AtPlan},
	"bringFound": {Plan, AtPlan}, "bringFromDevice": {Plan, AtPlan}, "bringHistory": {Plan, AtPlan}, "takeAwayFound": {Plan, AtPlan},
}

// RuleOf is the rule of an operation.
func RuleOf(operation string) Rule { return rules[operation] }

// writing are the needs that a token which only reads does not meet, whatever its maker may.
func (n Need) writing() bool { return n == Fit || n == Plan || n == Company }

// people tells of operations that are for people alone: a token makes no other, and changes no account.
func (n Need) people(operation string) bool {
	switch operation {
	case "tokens", "makeToken", "endToken", "changePassword", "removePassword", "newCode", "useCode", "removeCode", "passkeys",
		"newPasskey", "addPasskey",
		"removePasskey", "seats", "leave", "invite", "setRoles", "resetPassword", "removePerson", "endSeats", "askTwo":
		return true
	}
	return false
}

// exports are operations that take something out of the program: each is in the audit.
var exports = map[string]bool{"exportPlan": true, "exportSites": true, "exportBundle": true, "exportTable": true,
	"handoverFile": true, "measuredFile": true,
	"papers": true, "paper": true,
	"rehearsedFile": true, "compareFile": true, "exportWeek": true, "exportSpecialDays": true, "auditFile": true}

// IsExport tells whether an operation takes something out of the program.
func IsExport(operation string) bool { return exports[operation] }

// Decision is what is said to whoever asks.
type Decision struct {
	Allowed bool
	Hidden  bool   // what was asked for is said not to be there
	Words   string // why not
}

var allowed = Decision{Allowed: true}

// Decide is whether somebody may call an operation at a site of a company; both are empty for an operation at none, and who
// is nil for nobody.
func Decide(operation string, who *Who, company, site string) Decision {
	rule, listed := rules[operation]
	switch {
	case !listed || rule.Need == Refused:
		return Decision{Words: "Nobody may do this."}
	case rule.Need == Anybody, rule.Need == ByLink: // a link is looked at by the operation itself
		return allowed
	case who == nil:
		return Decision{Words: "Sign in first."}
	case who.Token != "" && rule.people(operation):
		return Decision{Words: "This is for people, not for tokens."}
	case who.ReadOnly && rule.writing():
		return Decision{Words: "This token only reads."}
	case who.SetUp && !rule.people(operation):
		return Decision{Words: "Your company asks for a passkey, or a code beside the password. Set one up in your account first."}
	case rule.Need == Member:
		return allowed
	}
	if rule.Place == Nowhere {
		return wholeCompany(who)
	}
	return atSite(rule.Need, who, company, site)
}

// atSite is whether somebody may do something at a site of a company.
func atSite(need Need, who *Who, company, site string) Decision {
	role := who.RoleAt(site)
	switch {
	case company != who.Company || role == "":
		return Decision{Hidden: true, Words: "There is no such site or plan."}
	case need == Company:
		return wholeCompany(who)
	case role == "planner", need == Read, need == Fit && role == "fitter":
		return allowed
	}
	return Decision{Words: fmt.Sprintf("You are a %s of this site; this is for its planners.", role)}
}

// wholeCompany is whether somebody may do what is for planners of the company.
func wholeCompany(who *Who) Decision {
	if who.Planner && len(who.Only) == 0 {
		return allowed
	}
	return Decision{Words: "This is for planners of the whole company."}
}
