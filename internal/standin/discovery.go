package standin

import (
	"context"
	"crypto/sha1" //nolint:gosec // a name, no secret
	"fmt"
	"net"

	"wakefield.example/internal/onvif"
)

// discoverable answers whoever asks who is there.
func (d *Device) discoverable(ctx context.Context) error {
	conn, err := net.ListenPacket("udp", d.o.Discover)
	if err != nil {
		return err
	}
	d.Discovery = conn.LocalAddr().String()
	context.AfterFunc(ctx, func() { conn.Close() })
	sum := sha1.Sum([]byte(d.HTTP)) //nolint:gosec // as above
	id := fmt.Sprintf("urn:uuid:%x-%x-5%x-a%x-%x", sum[:4], sum[4:6], sum[6:8], sum[8:10], sum[10:16])
	d.run(func() {
		buffer := make([]byte, 64<<10)
		for {
			n, from, err := conn.ReadFrom(buffer)
			if err != nil {
				return
			}
			if to := onvif.ProbeOf(buffer[:n]); to != "" {
				conn.WriteTo(onvif.Matches(id, to, onvif.Match{ID: id, Addresses: []string{d.HTTP + "/onvif/device_service"}, Scopes: d.scopes()}),
					from)
			}
		}
	})
	return nil
}
