package main

import (
	"crypto/ecdsa"
	"crypto/elliptic"
	"crypto/rand"
	"crypto/x509"
	"encoding/pem"
	"math/big"
	"net"
	"net/netip"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"
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
