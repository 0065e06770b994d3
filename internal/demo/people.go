package demo

import (
	"context"

	"wakefield.example/internal/account"
	"wakefield.example/internal/store"
)

// PeoplesPassword is the password of the sample people, which everybody may know.
const PeoplesPassword = "herring gull at low tide"

// People makes the three sample people, unless they are there: a planner, and a fitter and a reader of the ferry terminal.
func People(ctx context.Context, s *store.Store) ([]account.SamplePerson, error) {
	hash, err := account.HashPassword(ctx, PeoplesPassword)
	if err != nil {
		return nil, err
	}
	quay := func(role string) []store.Role { return []store.Role{{Site: "pennywhistle-quay", Role: role}} }
	var out []account.SamplePerson
	for _, p := range []struct {
		id, name, what string
		planner        bool
		roles          []store.Role
	}{
		{"sample-planner", "Ines Marrow", "planner of all sites", true, nil},
		{"sample-fitter", "Tobias Fenn", "fitter of Pennywhistle Quay", false, quay("fitter")},
		{"sample-reader", "Odile Quist", "reader of Pennywhistle Quay", false, quay("reader")},
	} {
		name, key, err := account.Name(p.name)
		if err != nil {
			return nil, err
		}
		err = s.AddPerson(ctx, store.Person{ID: p.id, Company: "own", Name: name, Planner: p.planner, Roles: p.roles,
			Secrets: store.Secrets{Key: key, Password: hash, Handle: []byte(account.NewSecret())}})
		if err != nil {
			return nil, err
		}
		out = append(out, account.SamplePerson{Name: name, What: p.what, Password: PeoplesPassword})
	}
	return out, nil
}
