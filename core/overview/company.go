package overview

import (
	"cmp"
	"maps"
	"slices"

	"wakefield.example/core/check"
)

// Company is what a company has planned altogether.
type Company struct {
	Sites           int       `json:"sites" doc:"That are estimated"`
	Channels        int       `json:"channels"`
	UsableGB        float64   `json:"usableGB" doc:"Of all pools"`
	GigabytesPerDay float64   `json:"gigabytesPerDay"`
	Short           int       `json:"short" doc:"Sites that keep less than required"`
	Kept            []Kept    `json:"kept" doc:"Sites by how many days they keep of those required, from least to most; those of which nothing is required are not among them"`
	Free            int       `json:"free" doc:"Sites of which no days are required"`
	Found           []AllOf   `json:"found" doc:"Findings by rule, those of most sites first within a severity"`
	Accepted        []ByWhom  `json:"accepted" doc:"Who accepted how many findings, most first"`
	Customers       []Ordered `json:"customers" doc:"What is planned for whom, most storage first"`
}

// Kept is how many sites keep some share of the days that are required.
type Kept struct {
	FromPercent float64  `json:"fromPercent"`
	ToPercent   *float64 `json:"toPercent" required:"true" doc:"Not included; null for no end"`
	Sites       int      `json:"sites"`
}

// AllOf is how often a rule found something, at how many sites.
type AllOf struct {
	Rule     string         `json:"rule"`
	Severity check.Severity `json:"severity" enum:"error,warning,hint"`
	Sites    int            `json:"sites" doc:"At which at least one is open"`
	Open     int            `json:"open"`
	Accepted int            `json:"accepted"`
}

// ByWhom is how many findings somebody accepted.
type ByWhom struct {
	By       string `json:"by"`
	Findings int    `json:"findings"`
	Sites    int    `json:"sites"`
}

// Ordered is what is planned for a customer.
type Ordered struct {
	Customer string  `json:"customer"`
	Sites    int     `json:"sites"`
	Channels int     `json:"channels"`
	UsableGB float64 `json:"usableGB"`
	Short    int     `json:"short"`
}

// OfCustomer is a site's line, and whose site it is.
type OfCustomer struct {
	Customer string
	*Line
	Found []Found
}

// shares are the steps of [Kept], in percent of the required days.
var shares = []float64{0, 50, 80, 100, 120, 200}

// Add adds the lines of sites up.
func Add(lines []OfCustomer) Company {
	c := Company{Sites: len(lines), Kept: []Kept{}}
	for i, from := range shares {
		k := Kept{FromPercent: from}
		if i+1 < len(shares) {
			k.ToPercent = &shares[i+1]
		}
		c.Kept = append(c.Kept, k)
	}
	rules, people, customers := make(map[string]*AllOf), make(map[string]*ByWhom), make(map[string]*Ordered)
	for _, l := range lines {
		c.Channels += l.Channels
		c.UsableGB += l.UsableGB
		c.GigabytesPerDay += l.GigabytesPerDay
		if l.Short {
			c.Short++
		}
		c.keep(l.Line)
		l.found(rules, people)
		of := at(customers, l.Customer, Ordered{Customer: l.Customer})
		of.Sites++
		of.Channels += l.Channels
		of.UsableGB += l.UsableGB
		if l.Short {
			of.Short++
		}
	}
	c.Found = sorted(rules, func(a, b AllOf) int {
		return cmp.Or(cmp.Compare(a.Severity.Rank(), b.Severity.Rank()), cmp.Compare(b.Sites, a.Sites), cmp.Compare(b.Open,
			a.Open), cmp.Compare(a.Rule, b.Rule))
	})
	c.Accepted = sorted(people, func(a, b ByWhom) int { return cmp.Or(cmp.Compare(b.Findings, a.Findings), cmp.Compare(a.By, b.By)) })
	c.Customers = sorted(customers, func(a, b Ordered) int {
		return cmp.Or(cmp.Compare(b.UsableGB, a.UsableGB), cmp.Compare(a.Customer, b.Customer))
	})
	return c
}

// keep counts a site by the share of its days. Footage that nothing takes away is kept for more than any number of them.
func (c *Company) keep(l *Line) {
	if l.RequiredDays == nil || *l.RequiredDays <= 0 {
		c.Free++
		return
	}
	k := len(c.Kept) - 1
	if l.KeptDays != nil {
		percent := 100 * *l.KeptDays / *l.RequiredDays
		for k > 0 && percent < c.Kept[k].FromPercent {
			k--
		}
	}
	c.Kept[k].Sites++
}

// found adds what was found at a site.
func (l *OfCustomer) found(rules map[string]*AllOf, people map[string]*ByWhom) {
	by := make(map[string]int)
	for _, f := range l.Found {
		of := at(rules, string(f.Severity)+" "+f.Rule, AllOf{Rule: f.Rule, Severity: f.Severity})
		of.Open += f.Open
		if f.Open > 0 {
			of.Sites++
		}
		for who, n := range f.Accepted {
			of.Accepted += n
			by[who] += n
		}
	}
	for who, n := range by {
		of := at(people, who, ByWhom{By: who})
		of.Findings += n
		of.Sites++
	}
}

func at[T any](m map[string]*T, key string, first T) *T {
	if m[key] == nil {
		m[key] = &first
	}
	return m[key]
}

func sorted[T any](m map[string]*T, less func(a, b T) int) []T {
	out := make([]T, 0, len(m))
	for v := range maps.Values(m) {
		out = append(out, *v)
	}
	slices.SortFunc(out, less)
	return out
}
