// Package release says which Wakefield this is: the version that the changelog begins with.
package release

import "runtime/debug"

// Version is that of the program: it, the changelog's newest heading and the page's help say the same.
const Version = "0.6.1"

// Commit is what the program was built from, as far as it was built where that is known; empty else.
func Commit() string {
	info, ok := debug.ReadBuildInfo()
	if !ok {
		return ""
	}
	commit, changed := "", false
	for _, s := range info.Settings {
		switch s.Key {
		case "vcs.revision":
			commit = s.Value[:min(12, len(s.Value))]
		case "vcs.modified":
			changed = s.Value == "true"
		}
	}
	if commit != "" && changed {
		commit += " with changes"
	}
	return commit
}
