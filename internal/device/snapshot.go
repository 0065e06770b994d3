package device

import (
	"context"
	"io"
	"net/http"

	"wakefield.example/internal/onvif"
)

// mostSnapshot is how large a snapshot may be.
const mostSnapshot = 12 << 20

// Snapshot fetches a picture of a stream.
func (c *Client) Snapshot(ctx context.Context, profile string) ([]byte, error) {
	text, err := c.address(ctx, "GetSnapshotUri", profile)
	if err != nil {
		return nil, err
	}
	port, path, err := pathOf(text)
	if err != nil {
		return nil, err
	}
	ctx, cancel := context.WithTimeout(ctx, c.o.Call)
	defer cancel()
	request, err := http.NewRequestWithContext(ctx, http.MethodGet, c.url(c.scheme(), port, path), nil)
	if err != nil {
		return nil, &Error{Stranger, "It names an address that is none."}
	}
	response, err := c.web.Do(request)
	if err != nil {
		return nil, troubleOf(err)
	}
	defer response.Body.Close()
	switch {
	case response.StatusCode == http.StatusUnauthorized:
		return nil, &Error{Closed, "It does not accept the user or the password for its snapshot."}
	case response.StatusCode >= 300 && response.StatusCode < 400:
		return nil, &Error{Elsewhere, "Its snapshot is elsewhere, which is not followed."}
	case response.StatusCode != http.StatusOK:
		return nil, &Error{Refused, "It answers " + response.Status + " when asked for a snapshot."}
	}
	data, err := io.ReadAll(io.LimitReader(response.Body, mostSnapshot+1))
	if err != nil {
		return nil, troubleOf(err)
	}
	if len(data) > mostSnapshot {
		return nil, &Error{Stranger, "Its snapshot is larger than 12 MB."}
	}
	return data, nil
}

// address asks where something of a profile is to be had.
func (c *Client) address(ctx context.Context, operation, profile string) (string, error) {
	if c.Has(onvif.Media2) {
		in := []any{onvif.E("tr2:ProfileToken", profile)}
		if operation == "GetStreamUri" {
			in = []any{onvif.E("tr2:Protocol", "RTSP"), in[0]}
		}
		answer, err := c.ask(ctx, onvif.Media2, onvif.E("tr2:"+operation, in...))
		return onvif.Text(answer, "Uri"), err
	}
	in := []any{onvif.E("trt:ProfileToken", profile)}
	if operation == "GetStreamUri" {
		in = []any{onvif.E("trt:StreamSetup", onvif.E("tt:Stream", "RTP-Unicast"),
			onvif.E("tt:Transport", onvif.E("tt:Protocol", "RTSP"))), in[0]}
	}
	answer, err := c.ask(ctx, onvif.Media, onvif.E("trt:"+operation, in...))
	return onvif.Text(answer, "MediaUri/Uri"), err
}
