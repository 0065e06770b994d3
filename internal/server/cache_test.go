package server

import (
	"fmt"
	"testing"
	"testing/synctest"
	"time"
)

func TestACacheKeepsWithinItsBounds(t *testing.T) {
	var bytes, entries int
	c := NewCache[string](Bounds[int]{Entries: 5, Bytes: 100, Size: func(n int) int { return n },
		Told: func(b, e int) { bytes, entries = b, e }})
	holds := func(what string, wantBytes, wantEntries int) {
		t.Helper()
		if bytes != wantBytes || entries != wantEntries {
			t.Errorf("%s: %d bytes in %d entries, want %d in %d", what, bytes, entries, wantBytes, wantEntries)
		}
	}
	c.Put("a", 30)
	c.Put("a", 40) // in its place
	holds("one", 40, 1)
	c.Put("b", 50)
	c.Get("a")
	c.Put("c", 20)
	holds("the one that nobody asked for goes", 60, 2)
	if _, ok := c.Peek("b"); ok {
		t.Error("b was asked for before a, and is still there")
	}
	c.PutUnless("c", 90, func(old int) bool { return old == 20 })
	holds("unless", 60, 2)
	if v, ok := c.Newest(func(k string) bool { return k != "c" }); !ok || v != 40 {
		t.Errorf("the newest but c is %d", v)
	}
	if _, ok := c.Newest(func(k string) bool { return k == "d" }); ok {
		t.Error("there is a d")
	}
	c.Put("large", 1000)
	holds("the newest stays, whatever it takes", 1000, 1)
	for i := range 9 {
		c.Put(fmt.Sprint(i), 1)
	}
	holds("no more than five", 5, 5)
	c.Forget()
	holds("nothing", 0, 0)
}

func TestACacheThatNobodyAsksIsEmptied(t *testing.T) {
	synctest.Test(t, func(t *testing.T) {
		c := NewCache[string](Bounds[int]{Entries: 5, Idle: time.Minute})
		c.Put("a", 1)
		time.Sleep(50 * time.Second)
		if _, ok := c.Get("a"); !ok {
			t.Error("it went too early")
		}
		time.Sleep(50 * time.Second)
		if _, ok := c.Peek("a"); !ok {
			t.Error("asking did not put it off")
		}
		time.Sleep(61 * time.Second)
		if _, ok := c.Peek("a"); ok {
			t.Error("nobody asked, and it is still there")
		}
	})
}
