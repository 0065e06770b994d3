package standin

import (
	"bytes"
	"crypto/ecdsa"
	"crypto/elliptic"
	"crypto/rand"
	"crypto/tls"
	"crypto/x509"
	"crypto/x509/pkix"
	"encoding/hex"
	"image"
	"image/draw"
	"image/jpeg"
	"io"
	"math/big"
	"net"
	"net/http"
	"regexp"
	"strings"
	"time"

	"github.com/icholy/digest"

	"wakefield.example/internal/onvif"
)

// realm of its passwords.
const realm = "stand-in"

// mostQuestion is how large a question may be.
const mostQuestion = 1 << 20

// lockedAfter is after how many calls the password is refused, where it is.
const lockedAfter = 60

// handler answers over HTTP.
func (d *Device) handler() http.Handler {
	mux := http.NewServeMux()
	mux.HandleFunc("POST /onvif/", d.soap)
	mux.HandleFunc("GET /snapshot/{profile}", d.snapshot)
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		d.mu.Lock()
		d.calls++
		calls := d.calls
		d.mu.Unlock()
		if d.has(Slow) {
			time.Sleep(d.o.Pause)
		}
		if d.has(Drops) && calls%5 == 0 {
			if c, _, err := http.NewResponseController(w).Hijack(); err == nil {
				c.Close()
				return
			}
		}
		if d.has(Moved) {
			http.Redirect(w, r, "http://192.0.2.7"+r.URL.Path, http.StatusFound)
			return
		}
		mux.ServeHTTP(w, r)
	})
}

// usualPause is how long an answer takes where it is slow.
const usualPause = 5 * time.Second

// public are operations that everybody may ask.
var public = map[string]bool{"GetSystemDateAndTime": true, "GetServices": true, "GetCapabilities": true, "GetServiceCapabilities": true,
	"GetHostname": true, "GetWsdlUrl": true, "GetEndpointReference": true}

// soap answers one message.
func (d *Device) soap(w http.ResponseWriter, r *http.Request) {
	m, err := onvif.Read(http.MaxBytesReader(w, r.Body, mostQuestion))
	if err != nil || m.Body == nil {
		d.send(w, m, http.StatusBadRequest, (&onvif.Fault{Sender: true, Code: "WellFormed", Reason: "The message is not understood"}).Element())
		return
	}
	if !public[m.Body.Tag] && !d.known(w, r, m) {
		return
	}
	service := onvif.ServiceOf(m.Body.NamespaceURI())
	if m.Body.NamespaceURI() == onvif.Namespaces["wsnt"] {
		service = onvif.Events
	}
	answer, fault := d.answer(string(service)+":"+m.Body.Tag, r, m)
	if fault != nil {
		status := http.StatusInternalServerError
		if fault.Sender {
			status = http.StatusBadRequest
		}
		d.send(w, m, status, fault.Element())
		return
	}
	d.send(w, m, http.StatusOK, answer)
}

// known tells whether whoever asks has shown that he knows the password: by a token in the message, or by digest of HTTP.
func (d *Device) known(w http.ResponseWriter, r *http.Request, m *onvif.Message) bool {
	d.mu.Lock()
	locked := d.has(LocksOut) && d.calls > lockedAfter
	d.mu.Unlock()
	if !locked && !d.has(DigestOnly) {
		if t := onvif.TokenOf(m.Header); t != nil {
			return d.byToken(w, m, t)
		}
	}
	if !locked && d.byDigest(r) {
		return true
	}
	d.challenge(w)
	d.send(w, m, http.StatusUnauthorized, notAuthorized().Element())
	return false
}

func notAuthorized() *onvif.Fault {
	return &onvif.Fault{Sender: true, Code: "NotAuthorized", Reason: "Sender not authorized"}
}

// byToken believes a token that is not older than five minutes, once.
func (d *Device) byToken(w http.ResponseWriter, m *onvif.Message, t *onvif.Token) bool {
	d.mu.Lock()
	repeated := d.nonces[t.Nonce]
	if len(d.nonces) > 10_000 {
		clear(d.nonces)
	}
	d.nonces[t.Nonce] = true
	d.mu.Unlock()
	age := d.now().Sub(t.Created).Abs()
	if t.User == d.o.User && t.Proves(d.o.Password) && age < 5*time.Minute && !repeated {
		return true
	}
	d.send(w, m, http.StatusBadRequest, notAuthorized().Element())
	return false
}

// byDigest believes what answers the last challenge.
func (d *Device) byDigest(r *http.Request) bool {
	return d.proves(r.Header.Get("Authorization"), r.Method)
}

// proves tells whether credentials of digest are right, of HTTP or RTSP.
func (d *Device) proves(header, method string) bool {
	c, err := digest.ParseCredentials(header)
	if err != nil || c.Username != d.o.User || c.Realm != realm {
		return false
	}
	d.mu.Lock()
	nonce := d.asked
	d.mu.Unlock()
	if c.Nonce != nonce || nonce == "" {
		return false
	}
	challenge := &digest.Challenge{Realm: realm, Nonce: c.Nonce, Algorithm: c.Algorithm}
	if c.QOP != "" {
		challenge.QOP = []string{c.QOP}
	}
	proof, err := digest.Digest(challenge, digest.Options{Method: method, URI: c.URI, Username: d.o.User, Password: d.o.Password, Count: c.Nc,
		Cnonce: c.Cnonce})
	return err == nil && proof.Response == c.Response
}

// nonce is the one of the challenge that holds.
func (d *Device) nonce() string {
	d.mu.Lock()
	defer d.mu.Unlock()
	if d.asked == "" {
		var b [16]byte
		rand.Read(b[:])
		d.asked = hex.EncodeToString(b[:])
	}
	return d.asked
}

// challenges are those of digest: SHA-256 first, MD5 for whoever knows no other.
func (d *Device) challenges() (out []string) {
	for _, algorithm := range []string{"SHA-256", "MD5"} {
		out = append(out, `Digest realm="`+realm+`", qop="auth", nonce="`+d.nonce()+`", algorithm=`+algorithm)
	}
	return out
}

func (d *Device) challenge(w http.ResponseWriter) {
	for _, c := range d.challenges() {
		w.Header().Add("WWW-Authenticate", c)
	}
}

// send writes an answer.
func (d *Device) send(w http.ResponseWriter, question *onvif.Message, status int, body *onvif.Element) {
	var header []*onvif.Element
	if question != nil {
		if id := onvif.Text(question.Header, "MessageID"); id != "" {
			header = append(header, onvif.E("wsa:RelatesTo", id))
		}
		if action := onvif.Text(question.Header, "Action"); action != "" {
			header = append(header, onvif.E("wsa:Action", strings.TrimSuffix(action, "Request")+"Response"))
		}
	}
	message := onvif.Envelope(header, body)
	if d.has(OldPrefixes) {
		message = aged(message)
	}
	w.Header().Set("Content-Type", "application/soap+xml; charset=utf-8")
	w.WriteHeader(status)
	w.Write(message)
}

var tags = regexp.MustCompile(`(</?|xmlns:)(s|tt|tr2|trt|tds)([:=])`)

// aged is a message as old devices write it: other prefixes, lines between elements.
func aged(message []byte) []byte {
	other := map[string]string{"s": "SOAP-ENV", "tt": "ns1", "tr2": "ns2", "trt": "ns3", "tds": "ns4"}
	message = tags.ReplaceAllFunc(message, func(m []byte) []byte {
		parts := tags.FindSubmatch(m)
		return []byte(string(parts[1]) + other[string(parts[2])] + string(parts[3]))
	})
	return bytes.ReplaceAll(message, []byte("><"), []byte(">\r\n\t <"))
}

// snapshot draws a picture of a stream.
func (d *Device) snapshot(w http.ResponseWriter, r *http.Request) {
	if !d.byDigest(r) {
		d.challenge(w)
		http.Error(w, "who asks?", http.StatusUnauthorized)
		return
	}
	d.mu.Lock()
	c, k := d.state.profile(r.PathValue("profile"))
	var width, height, number int
	if c != nil {
		width, height, number = c.Encoders[k].Width, c.Encoders[k].Height, d.state.number(c)
	}
	d.mu.Unlock()
	if c == nil {
		http.NotFound(w, r)
		return
	}
	w.Header().Set("Content-Type", "image/jpeg")
	io.Copy(w, bytes.NewReader(still(width, height, number)))
}

// still is a made-up view: ground and sky, and as many posts as the channel's number.
func still(width, height, number int) []byte {
	for width > 1920 {
		width, height = width/2, height/2
	}
	img := image.NewYCbCr(image.Rect(0, 0, width, height), image.YCbCrSubsampleRatio420)
	fill := func(r image.Rectangle, y uint8) {
		r = r.Intersect(img.Rect)
		for row := r.Min.Y; row < r.Max.Y; row++ {
			for x := r.Min.X; x < r.Max.X; x++ {
				img.Y[img.YOffset(x, row)] = y
			}
		}
	}
	for k := range img.Cb {
		img.Cb[k], img.Cr[k] = 128, 128
	}
	horizon := height * 2 / 5
	for row := range height {
		y := 150 - 40*row/height
		if row > horizon {
			y = 70 + 60*(row-horizon)/(height-horizon)
		}
		fill(image.Rect(0, row, width, row+1), uint8(y))
	}
	for k := range number {
		x := width * (k + 1) / (number + 1)
		fill(image.Rect(x, horizon-height/12, x+max(2, width/160), horizon+height/10+k*height/80), 40)
	}
	var out bytes.Buffer
	gray := image.NewGray(img.Rect)
	draw.Draw(gray, gray.Rect, img, image.Point{}, draw.Src)
	if err := jpeg.Encode(&out, gray, &jpeg.Options{Quality: 80}); err != nil {
		panic(err) // nothing but memory is written to
	}
	return out.Bytes()
}

// selfSigned is a certificate that nobody vouches for.
func selfSigned(host string) (tls.Certificate, error) {
	key, err := ecdsa.GenerateKey(elliptic.P256(), rand.Reader)
	if err != nil {
		return tls.Certificate{}, err
	}
	template := x509.Certificate{SerialNumber: big.NewInt(time.Now().UnixNano()), Subject: pkix.Name{CommonName: "stand-in"},
		NotBefore: time.Now().Add(-time.Hour), NotAfter: time.Now().AddDate(10, 0, 0), IPAddresses: []net.IP{net.ParseIP(host)}}
	der, err := x509.CreateCertificate(rand.Reader, &template, &template, &key.PublicKey, key)
	return tls.Certificate{Certificate: [][]byte{der}, PrivateKey: key}, err
}
