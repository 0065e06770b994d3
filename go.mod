module wakefield

go 1.26
