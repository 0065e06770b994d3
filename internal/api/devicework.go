package api

import (
	"context"
	"crypto/rand"
	"encoding/json"
	"errors"
	"sync"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/core/readout"
	"wakefield.example/internal/device"
	"wakefield.example/internal/server"
	"wakefield.example/internal/store"
)

// mostWork is how many devices a server works with at once.
const mostWork = 16

// longestWork is how long one thing may take.
const longestWork = 30 * time.Minute

// working is one thing that is done with a device.
type working struct {
	*device.Client
	site     string
	device   store.Device
	said     *readout.Device // what was read last; nil before
	progress device.Progress
}

// cameOf is what comes of work: what of the device is kept, and what is told.
type cameOf struct {
	said, before, written *readout.Device
	told                  *CameOf
}

// work begins something with a device and answers as soon as it has begun. It goes on by itself, and ends when it is done, when
// somebody stops it, or when it takes too long.
func (s *service) work(ctx context.Context, plan, id, what string, by SentBy, do func(ctx context.Context,
	w *working) (cameOf, error)) error {
	e, err := s.current(ctx, plan)
	if err != nil {
		return s.problem(ctx, err)
	}
	return s.beginWork(ctx, e.head.Site, id, what, by.note("").Author, do)
}

func (s *service) beginWork(ctx context.Context, site, id, what, author string, do func(ctx context.Context,
	w *working) (cameOf, error)) error {
	d, err := s.store.Device(ctx, site, id)
	if err != nil {
		return s.problem(ctx, err)
	}
	holder := rand.Text()
	if err := s.store.BeginWork(ctx, site, id, what, holder, author); err != nil {
		return s.problem(ctx, err)
	}
	ctx = context.WithoutCancel(ctx)
	s.works.Add(1)
	go func() {
		defer s.works.Done()
		s.doWork(ctx, &worker{service: s, site: site, device: d, holder: holder, author: author}, do)
	}()
	return nil
}

// worker keeps the database informed of work.
type worker struct {
	*service
	site           string
	device         store.Device
	holder, author string

	mu          sync.Mutex
	done, total int
	at          string
	calls       []store.Call
}

func (k *worker) progress(done, total int, at string) {
	k.mu.Lock()
	defer k.mu.Unlock()
	k.done, k.total, k.at = done, total, at
}

func (k *worker) said(call, ended string) {
	k.mu.Lock()
	defer k.mu.Unlock()
	k.calls = append(k.calls, store.Call{Device: k.device.ID, Author: k.author, Call: call, Ended: ended, At: time.Now()})
}

// log keeps what was asked, also where whoever asked is gone.
func (k *worker) log(ctx context.Context) {
	k.mu.Lock()
	calls := k.calls
	k.calls = nil
	k.mu.Unlock()
	if len(calls) == 0 {
		return
	}
	if err := k.store.AddCalls(context.WithoutCancel(ctx), k.site, calls); err != nil {
		k.service.log.WarnContext(ctx, "calls of a device are not in the log", "cause", err)
	}
}

// tell keeps how far it is and what was asked, and tells whether to stop.
func (k *worker) tell(ctx context.Context) (stop bool) {
	k.log(ctx)
	k.mu.Lock()
	done, total, at := k.done, k.total, k.at
	k.mu.Unlock()
	stop, err := k.store.AtWork(ctx, k.site, k.device.ID, k.holder, done, total, at)
	return stop && err == nil
}

// heartbeat is how often the database hears of work.
const heartbeat = time.Second

var errStopped = errors.New("it was stopped")

func (s *service) doWork(ctx context.Context, k *worker, do func(ctx context.Context, w *working) (cameOf, error)) {
	working, stop := context.WithTimeout(ctx, longestWork)
	defer stop()
	defer context.AfterFunc(s.life, stop)()
	beating, still := context.WithCancel(ctx)
	var beat sync.WaitGroup
	beat.Go(func() {
		t := time.NewTicker(heartbeat)
		defer t.Stop()
		for {
			select {
			case <-beating.Done():
				return
			case <-t.C:
				if k.tell(ctx) {
					stop()
				}
			}
		}
	})
	came, err := s.workedWith(working, k, do)
	still()
	beat.Wait()
	if working.Err() != nil && (err == nil || errors.Is(err, context.Canceled)) {
		err = errStopped
	}
	s.endWork(ctx, k, came, err)
}

// workedWith opens the device and does what is to be done.
func (s *service) workedWith(ctx context.Context, k *worker, do func(ctx context.Context, w *working) (cameOf,
	error)) (came cameOf, err error) {
	select {
	case s.working <- struct{}{}:
		defer func() { <-s.working }()
	case <-ctx.Done():
		return came, ctx.Err()
	}
	c, err := s.open(ctx, k.site, &k.device, k.said)
	if err != nil {
		return came, err
	}
	defer c.Close()
	w := &working{Client: c, site: k.site, device: k.device, progress: k.progress}
	if k.device.Said != nil {
		w.said = new(readout.Device)
		if err := json.Unmarshal(k.device.Said, w.said); err != nil {
			return came, err
		}
	}
	return do(ctx, w)
}

// open opens a device of a site.
func (s *service) open(ctx context.Context, site string, d *store.Device, said func(call, ended string)) (*device.Client, error) {
	address, err := device.ReadAddress(d.Address)
	if err != nil {
		return nil, err
	}
	password, err := s.passwordOf(site, d)
	if err != nil {
		return nil, err
	}
	return device.Open(ctx, device.Options{Address: address, User: d.Username, Password: password, Fingerprint: d.Fingerprint,
		Allowed: s.apart.Allowed, Said: said})
}

// endWork keeps what came of work.
func (s *service) endWork(ctx context.Context, k *worker, came cameOf, err error) {
	k.tell(ctx)
	var keep store.Keeping
	var told json.RawMessage
	for _, of := range []struct {
		what any
		none bool
		into *json.RawMessage
	}{{came.said, came.said == nil, &keep.Said}, {came.before, came.before == nil, &keep.Before},
		{came.written, came.written == nil, &keep.Written},
		{came.told, came.told == nil, &told}} {
		if of.none {
			continue
		}
		data, failed := json.Marshal(of.what)
		if failed != nil {
			err = errors.Join(err, failed)
			continue
		}
		*of.into = data
	}
	trouble := ""
	if err != nil {
		trouble = err.Error()
		var known *device.Error
		var certificate *device.CertificateError
		if errors.Is(err, errStopped) {
			trouble = server.Sentence(trouble)
		} else if !errors.As(err, &known) && !errors.As(err, &certificate) {
			s.log.ErrorContext(ctx, "work with a device broke", "site", k.site, "device", k.device.ID, "cause", err)
			trouble = "It broke for a reason that is in the server's log."
		}
	}
	if err := s.store.EndWork(ctx, k.site, k.device.ID, k.holder, keep, told, trouble); err != nil {
		s.log.ErrorContext(ctx, "what came of work with a device is lost", "site", k.site, "device", k.device.ID, "cause", err)
	}
}

func (s *service) readDevice(ctx context.Context, in *struct {
	DeviceParam
	SentBy
}) (*struct{}, error) {
	return nil, s.work(ctx, in.ID, in.Device, "read", in.SentBy, readAll)
}

// readAll reads all that a device tells.
func readAll(ctx context.Context, w *working) (cameOf, error) {
	d, err := w.Read(ctx, w.progress)
	return cameOf{said: d}, err
}

func (s *service) stopDevice(ctx context.Context, in *struct {
	DeviceParam
	SentBy
}) (*struct{}, error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	return nil, s.problem(ctx, s.store.StopWork(ctx, e.head.Site, in.Device))
}

// stillFromDevice keeps a snapshot.
func (s *service) stillFromDevice(ctx context.Context, in *struct {
	DeviceParam
	SentBy
	Body struct {
		Token string `json:"token" minLength:"1" maxLength:"200" doc:"Of the video source"`
	}
}) (*body[KeptPicture], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	d, err := s.store.Device(ctx, e.head.Site, in.Device)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	said, err := readOf(&d)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	for i := range said.Channels {
		if c := &said.Channels[i]; c.Token == in.Body.Token && len(c.Streams) > 0 {
			return s.keepStill(ctx, in.ID, e.head.Site, &d, c.Streams[0].Profile, in.note("").Author)
		}
	}
	return nil, huma.Error422UnprocessableEntity("The device has no such camera. Read it again.")
}

func (s *service) keepStill(ctx context.Context, plan, site string, d *store.Device, profile, author string) (*body[KeptPicture], error) {
	k := &worker{service: s, site: site, device: *d, author: author}
	defer k.log(ctx)
	c, err := s.open(ctx, site, d, k.said)
	if err != nil {
		return nil, deviceProblem(err)
	}
	defer c.Close()
	data, err := c.Snapshot(ctx, profile)
	if err != nil {
		return nil, deviceProblem(err)
	}
	still, err := s.takeStill(ctx, data)
	if err != nil {
		return nil, huma.Error422UnprocessableEntity("Its snapshot is no picture that is understood: " + err.Error() + ".")
	}
	if err := s.store.AddPicture(ctx, plan, still); err != nil {
		return nil, s.problem(ctx, err)
	}
	return &body[KeptPicture]{KeptPicture{still.ID, still.Width, still.Height, len(still.JPEG)}}, nil
}
