// Found plays out what was found at the sample site in six weeks, and writes it to a file:
//
//	go run ./internal/demo/found internal/demo/pennywhistle-found.json
package main

import (
	"context"
	"encoding/json"
	"log"
	"os"

	"wakefield.example/internal/demo"
)

func main() {
	if len(os.Args) != 2 {
		log.Fatal("say which file is to be written")
	}
	list, err := demo.PlayQuay(context.Background())
	if err != nil {
		log.Fatal(err)
	}
	data, err := json.Marshal(list)
	if err != nil {
		log.Fatal(err)
	}
	if err := os.WriteFile(os.Args[1], append(data, '\n'), 0o644); err != nil {
		log.Fatal(err)
	}
}
