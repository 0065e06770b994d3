package main

import (
	"crypto/ecdsa"
	"crypto/elliptic"
	"crypto/rand"
	"crypto/tls"
	"crypto/x509"
	"encoding/json"
	"encoding/pem"
	"math/big"
	"net"
	"net/http"
	"net/http/cookiejar"
	"net/netip"
	"net/url"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"wakefield.example/internal/demo"
)

// TestOthersAreServedWithAccountsAndTLSOnly asks for every way of being reached whether it is refused.
func TestOthersAreServedWithAccountsAndTLSOnly(t *testing.T) {
	tls, proxy := listening{TLSCert: "c", TLSKey: "k"}, listening{TrustedProxy: []string{"192.0.2.1"}}
	for _, test := range []struct {
		address  string
		l        listening
		accounts bool
		says     string
	}{
		{"127.0.0.1:8460", listening{}, false, ""},
		{"[::1]:8460", listening{}, true, ""},
		{"0.0.0.0:8460", listening{}, false, "without accounts"},
		{"0.0.0.0:8460", tls, false, "without accounts"},
		{"192.0.2.7:8460", listening{}, true, "in the clear"},
		{"192.0.2.7:8460", tls, true, ""},
		{"192.0.2.7:8460", proxy, true, ""},
	} {
		err := test.l.mayListen(net.TCPAddrFromAddrPort(netip.MustParseAddrPort(test.address)), test.accounts)
		if (err == nil) != (test.says == "") || err != nil && !strings.Contains(err.Error(), test.says) {
			t.Errorf("%s, %+v, accounts %v: %v", test.address, test.l, test.accounts, err)
		}
	}
	for _, args := range [][]string{{"demo", "--listen", "0.0.0.0:0", "--data", folder(t)}} {
		if _, says, status := run(t, args...); status == 0 || !strings.Contains(says, "without accounts whoever reaches it") {
			t.Errorf("%v: %d, %s", args, status, says)
		}
	}
}

// TestACertificateIsRenewedWithoutARestart replaces the files one after the other, as a program for certificates does.
func TestACertificateIsRenewedWithoutARestart(t *testing.T) {
	dir := t.TempDir()
	cert, key := filepath.Join(dir, "cert"), filepath.Join(dir, "key")
	writePair(t, cert, key, 1)
	have := renewed(cert, key)
	serial := func() int64 {
		t.Helper()
		c, err := have(nil)
		if err != nil {
			t.Fatal(err)
		}
		leaf, err := x509.ParseCertificate(c.Certificate[0])
		if err != nil {
			t.Fatal(err)
		}
		return leaf.SerialNumber.Int64()
	}
	if serial() != 1 {
		t.Fatal(serial())
	}
	second := writePair(t, filepath.Join(dir, "other"), filepath.Join(dir, "otherkey"), 2)
	write := func(name string, data []byte, at int64) {
		if err := os.WriteFile(name, data, 0o600); err != nil {
			t.Fatal(err)
		}
		if err := os.Chtimes(name, time.Unix(at, 0), time.Unix(at, 0)); err != nil {
			t.Fatal(err)
		}
	}
	write(cert, second[0], 1_000_000_000) // the key is still the one of before
	if serial() != 1 {
		t.Error("half of a new certificate is served")
	}
	write(key, second[1], 1_000_000_001)
	if serial() != 2 {
		t.Error("the new certificate is not served")
	}
	if _, err := renewed(filepath.Join(dir, "none"), key)(nil); err == nil {
		t.Error("no certificate is served")
	}
}

// writePair writes a certificate of a number and its key.
func writePair(t *testing.T, cert, key string, number int64) [2][]byte {
	t.Helper()
	private, err := ecdsa.GenerateKey(elliptic.P256(), rand.Reader)
	if err != nil {
		t.Fatal(err)
	}
	template := x509.Certificate{SerialNumber: big.NewInt(number), NotAfter: time.Now().Add(time.Hour), DNSNames: []string{"localhost"}}
	der, err := x509.CreateCertificate(rand.Reader, &template, &template, &private.PublicKey, private)
	if err != nil {
		t.Fatal(err)
	}
	pkcs, err := x509.MarshalPKCS8PrivateKey(private)
	if err != nil {
		t.Fatal(err)
	}
	out := [2][]byte{pem.EncodeToMemory(&pem.Block{Type: "CERTIFICATE", Bytes: der}),
		pem.EncodeToMemory(&pem.Block{Type: "PRIVATE KEY", Bytes: pkcs})}
	for i, name := range []string{cert, key} {
		if err := os.WriteFile(name, out[i], 0o600); err != nil {
			t.Fatal(err)
		}
	}
	return out
}

// TestProgramsPullAndPush runs the demonstration with accounts over TLS: a planner signs in as a browser does and makes a
// token, with which plans are fetched and given back.
func TestProgramsPullAndPush(t *testing.T) {
	dir := t.TempDir()
	cert, key := filepath.Join(dir, "cert"), filepath.Join(dir, "key")
	writePair(t, cert, key, 1)
	t.Setenv("SSL_CERT_FILE", cert) // the program trusts it
	address, stop := startDemo(t, folder(t), "--accounts", "--tls-cert", cert, "--tls-key", key)
	defer stop()
	address = strings.Replace(address, "127.0.0.1", "localhost", 1)
	roots := x509.NewCertPool()
	pemData, err := os.ReadFile(cert)
	if err != nil || !roots.AppendCertsFromPEM(pemData) {
		t.Fatal(err)
	}
	jar, _ := cookiejar.New(nil)
	browser := &http.Client{Jar: jar, Transport: &http.Transport{TLSClientConfig: &tls.Config{RootCAs: roots}, ForceAttemptHTTP2: true}}
	ask := func(path, body string) map[string]any {
		t.Helper()
		answer, err := browser.Post(address+path, "application/json", strings.NewReader(body))
		if err != nil {
			t.Fatal(err)
		}
		defer answer.Body.Close()
		var said map[string]any
		if err := json.NewDecoder(answer.Body).Decode(&said); err != nil || answer.StatusCode >= 300 {
			t.Fatal(answer.Status, said, err)
		}
		if answer.Header.Get("Strict-Transport-Security") == "" || answer.ProtoMajor != 2 {
			t.Errorf("%s: %v", answer.Proto, answer.Header)
		}
		return said
	}
	ask("/api/sign-in", `{"name": "ines marrow", "password": "`+demo.PeoplesPassword+`"}`)
	u, _ := url.Parse(address)
	if cookies := jar.Cookies(u); len(cookies) != 1 || cookies[0].Name != "__Host-wakefield" {
		t.Errorf("%v", cookies)
	}
	token := filepath.Join(dir, "token")
	secret := ask("/api/tokens", `{"name": "test", "writes": true, "sites": [], "days": 1}`)["secret"].(string)
	if err := os.WriteFile(token, []byte(secret+"\n"), 0o600); err != nil {
		t.Fatal(err)
	}
	with := []string{"--server", address, "--token-file", token}
	file := filepath.Join(dir, "plan.json")
	if _, says, status := run(t, append([]string{"pull", "-o", file, "brackenhall-cider-works"}, with...)...); status != 0 {
		t.Fatalf("%d, %s", status, says)
	}
	if out, says, status := run(t, "estimate", file); status != 0 || !strings.Contains(out, "Brackenhall") {
		t.Errorf("%d, %s %s", status, out, says)
	}
	for _, args := range [][]string{{"push", file}, {"push", file, "--site", "brackenhall-cider-works"}} {
		out, says, status := run(t, append(args, with...)...)
		if status != 0 || !strings.HasPrefix(out, address+"/sites/") {
			t.Errorf("%v: %d, %s %s", args, status, out, says)
		}
	}
	for _, test := range []struct {
		args []string
		says string
	}{
		{[]string{"pull", "--server", address, "brackenhall-cider-works"}, "There is no token"},
		{[]string{"pull", "--server", "plan.example", "x"}, "is no address"},
		{append([]string{"pull", "nowhere"}, with...), "no such site"},
		{[]string{"pull", "--server", "http://192.0.2.1", "--token-file", token, "x"}, "in the clear"},
		{append([]string{"push", token}, with...), "422"},
	} {
		if _, says, status := run(t, test.args...); status == 0 || !strings.Contains(says, test.says) {
			t.Errorf("%v: %d, %s", test.args, status, says)
		}
	}
}
