package main
import ("bufio";"encoding/json";"fmt";"os";"cuestart/book";"cuestart/core/say")
func main(){ var s struct{Context say.Context}; t,_:=os.ReadFile("/work/shared/vectors/say.json"); json.Unmarshal(t,&s); s.Context.Book=book.Drills(); r:=say.NewReader(s.Context)
 sc:=bufio.NewScanner(os.Stdin); for sc.Scan(){ l:=r.Read(sc.Text()); l.Said=""; b,_:=json.Marshal(l); fmt.Println(sc.Text(),"\n      ",string(b)) } }
