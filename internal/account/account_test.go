package account

import (
	"context"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/pquerna/otp/totp"
)

// TestNamesThatLookAlikeAreOne compares names as people and as attackers type them.
func TestNamesThatLookAlikeAreOne(t *testing.T) {
	for _, pair := range [][2]string{
		{"Ines Marrow", "ines marrow"},
		{"Ines Marrow", "  Ines   Marrow "},
		{"Ines Marrow", "Inеs Marrow"}, // a Cyrillic e
		{"Ines Marrow", "Ｉｎｅｓ Marrow"}, // full width
		{"PAUL", "ΡAUL"},               // a Greek capital
		{"Zo\u00eb", "Zoe\u0308"},      // composed and not
	} {
		_, a, errA := Name(pair[0])
		_, b, errB := Name(pair[1])
		if errA != nil || errB != nil || a != b {
			t.Errorf("%q and %q: %q, %q, %v, %v", pair[0], pair[1], a, b, errA, errB)
		}
	}
	_, a, _ := Name("Ines Marrow")
	_, b, _ := Name("Ines Narrow")
	if a == b {
		t.Error("two names are one")
	}
	if shown, _, err := Name(" Odile\tQuist "); err != nil || shown != "Odile Quist" {
		t.Errorf("%q, %v", shown, err)
	}
	for _, bad := range []string{"", "   ", strings.Repeat("a", 61), "a\x00b", "a\u202eb", "a\u200bb", "\xff", strings.Repeat("é", 10_000)} {
		if name, key, err := Name(bad); err == nil {
			t.Errorf("%.20q is taken as %q, %q", bad, name, key)
		}
	}
}

// FuzzName holds names to what is kept of them: the name that is shown has the same key, and is one itself.
func FuzzName(f *testing.F) {
	f.Add("Ines Marrow")
	f.Add("Ｉｎｅｓ\u200d")
	f.Fuzz(func(t *testing.T, typed string) {
		name, key, err := Name(typed)
		if err != nil {
			return
		}
		again, same, err := Name(name)
		if err != nil || again != name || same != key || key == "" {
			t.Errorf("%q is shown as %q, which is %q, %q beside %q, %v", typed, name, again, same, key, err)
		}
	})
}

func TestPasswordsAreLongAndRare(t *testing.T) {
	for password, says := range map[string]string{
		"short":                       "at least 12",
		"password1234":                "commonest",
		"qwertyuiop123":               "commonest",
		"passwordpassword":            "again and again",
		"aaaaaaaaaaaaaa":              "again and again",
		"abcabcabcabcabc":             "again and again",
		"ines marrow1":                "the name",
		strings.Repeat("long ", 40):   "more than 128",
		"\xff\xfe longer than twelve": "UTF-8",
	} {
		if err := CheckPassword(password, "Ines Marrow"); err == nil || !strings.Contains(err.Error(), says) {
			t.Errorf("%.20q: %v", password, err)
		}
	}
	for _, password := range []string{"herring gull at low tide", "correct-horse-battery", "ключ от маяка на мысе", "🐟🐟🦀🐚🌊⛵️🪝🦑🐙🐡🐠🦐"} {
		if err := CheckPassword(password, "Ines Marrow"); err != nil {
			t.Errorf("%q: %v", password, err)
		}
	}
}

func TestPasswordsAreComparedAsTheyAreTyped(t *testing.T) {
	ctx := context.Background()
	hash, err := HashPassword(ctx, "Zo\u00eb by the sea wall")
	if err != nil || !strings.HasPrefix(hash, "$argon2id$v=19$m=47104,t=1,p=1$") {
		t.Fatalf("%q, %v", hash, err)
	}
	for password, want := range map[string]bool{"Zo\u00eb by the sea wall": true, "Zoe\u0308 by the sea wall": true,
		"zoë by the sea wall": false, "": false} {
		if is, err := isPassword(ctx, password, hash); err != nil || is != want {
			t.Errorf("%q: %v, %v", password, is, err)
		}
	}
	for _, hash := range []string{"", hash} {
		if is, err := isPassword(ctx, strings.Repeat("x", 1<<20), hash); err != nil || is {
			t.Errorf("%v, %v", is, err)
		}
	}
	if is, _ := isPassword(ctx, "", ""); is {
		t.Error("nobody's password is empty")
	}
}

// TestACodeIsGoodForItsHalfMinute tells the code of now from those around it: a clock may be off by one.
func TestACodeIsGoodForItsHalfMinute(t *testing.T) {
	made, err := MakeCode("Ines Marrow")
	if err != nil || !strings.HasPrefix(made.Image, "data:image/png;base64,") || !strings.Contains(made.URL, "Wakefield") {
		t.Fatal(made, err)
	}
	now := time.Unix(1_800_000_000, 0)
	for off, want := range map[int64]bool{-2: false, -1: true, 0: true, 1: true, 2: false} {
		code, err := totp.GenerateCode(made.Secret, now.Add(time.Duration(off)*30*time.Second))
		if err != nil {
			t.Fatal(err)
		}
		step := stepOf(code[:3]+" "+code[3:], made.Secret, now)
		if (step != 0) != want || want && step != now.Unix()/30+off {
			t.Errorf("a code of %d steps off is of step %d", off, step)
		}
	}
	if stepOf("", made.Secret, now) != 0 || stepOf("12345", made.Secret, now) != 0 {
		t.Error("no code is one")
	}
	codes, hashes := NewRecovery()
	if len(codes) != 10 || len(hashes) != 10 || Hashed(plainCode(" "+strings.ToUpper(codes[3]))) != hashes[3] {
		t.Errorf("%v", codes)
	}
}

// TestOnesOwnFailuresKeepNobodyOut tries passwords of a name from many addresses: who signed in from theirs before may.
func TestOnesOwnFailuresKeepNobodyOut(t *testing.T) {
	l := newLimits()
	known, unknown := func() bool { return true }, func() bool { return false }
	for range pairFailures {
		if !l.may("ines", "192.0.2.1", unknown) {
			t.Fatal("kept out too soon")
		}
		l.failure("ines", "192.0.2.1")
	}
	if l.may("ines", "192.0.2.1", known) {
		t.Error("one address tries for ever")
	}
	if !l.may("ines", "192.0.2.2", unknown) || !l.may("odile", "192.0.2.1", unknown) {
		t.Error("others are kept out")
	}
	for i := range nameFailures {
		l.failure("ines", "198.51.100."+string(rune('a'+i%26))+string(rune('a'+i/26)))
	}
	if l.may("ines", "192.0.2.9", unknown) {
		t.Error("many addresses try for ever")
	}
	if !l.may("ines", "192.0.2.8", known) {
		t.Error("the rightful are kept out")
	}
	for range addressFailures {
		l.failure("n"+NewID(), "203.0.113.1")
	}
	if l.may("somebody", "203.0.113.1", known) {
		t.Error("one address tries all names for ever")
	}
}

// TestTheTableIsDecidedAsItReads asks the policy about people at one's own site and at a foreign one.
func TestTheTableIsDecidedAsItReads(t *testing.T) {
	planner := &Who{Company: "own", Planner: true}
	reader := &Who{Company: "own", Roles: map[string]string{"quay": "reader"}}
	token := &Who{Company: "own", Planner: true, Token: "t", ReadOnly: true, Only: []string{"quay"}}
	for _, test := range []struct {
		operation     string
		who           *Who
		company, site string
		allowed       bool
		hidden        bool
	}{
		{"health", nil, "", "", true, false},
		{"edit", nil, "own", "quay", false, false},
		{"edit", planner, "own", "quay", true, false},
		{"edit", planner, "other", "theirs", false, true},
		{"edit", reader, "own", "quay", false, false},
		{"edit", reader, "own", "depot", false, true},
		{"getPlan", reader, "own", "quay", true, false},
		{"tick", reader, "own", "quay", false, false},
		{"people", reader, "", "", false, false},
		{"getPlan", token, "own", "quay", true, false},
		{"getPlan", token, "own", "depot", false, true},
		{"edit", token, "own", "quay", false, false},
		{"makeToken", token, "", "", false, false},
		{"people", token, "", "", false, false},
		{"getPlan", &Who{Company: "own", Planner: true, SetUp: true}, "own", "quay", false, false},
		{"useCode", &Who{Company: "own", Planner: true, SetUp: true}, "", "", true, false},
		{"not listed", planner, "own", "quay", false, false},
	} {
		d := Decide(test.operation, test.who, test.company, test.site)
		if d.Allowed != test.allowed || d.Hidden != test.hidden || !d.Allowed && d.Words == "" {
			t.Errorf("%+v: %+v", test, d)
		}
	}
	for operation := range exports {
		if RuleOf(operation).Need == Refused {
			t.Errorf("%s is no operation", operation)
		}
	}
	if secret := NewSecret(); len(secret) != 43 || slices.Contains([]string{NewSecret(), Hashed(secret)}, secret) {
		t.Error(secret)
	}
}
