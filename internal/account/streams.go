package account

import (
	"context"
	"time"
)

// stream is something that somebody listens to for long.
type stream struct {
	who *Who
	end context.CancelFunc
}

// Listen is a context that ends when whoever listens may no longer: when they are signed out, removed, or may do something
// else than before. Who may still listen comes back and is asked who they are.
func (k *Keeper) Listen(ctx context.Context, w *Who) (context.Context, context.CancelFunc) {
	ctx, cancel := context.WithDeadline(ctx, w.Ends)
	s := &stream{w, cancel}
	k.mutex.Lock()
	k.streams[s] = true
	k.mutex.Unlock()
	stop := k.watchUse(ctx, w, cancel)
	return ctx, func() {
		cancel()
		stop()
		k.mutex.Lock()
		delete(k.streams, s)
		k.mutex.Unlock()
	}
}

// watchUse ends what is listened to at a seat that nobody uses any more.
func (k *Keeper) watchUse(ctx context.Context, w *Who, end context.CancelFunc) (stop func()) {
	if w.Seat == "" {
		return func() {}
	}
	var timer *time.Timer
	look := func() {
		s, known := k.seats.Peek(w.Seat)
		if !known || time.Now().Unix()-s.used.Load() > int64(k.options.Idle/time.Second) {
			end() // who may still listen comes back
			return
		}
		if ctx.Err() == nil {
			timer.Reset(k.options.Idle / 10)
		}
	}
	timer = time.AfterFunc(time.Hour, look)
	timer.Reset(k.options.Idle / 10)
	return func() { timer.Stop() }
}

func (k *Keeper) endStreams(which func(*stream) bool) {
	k.mutex.Lock()
	defer k.mutex.Unlock()
	for s := range k.streams {
		if which(s) {
			s.end()
		}
	}
}
