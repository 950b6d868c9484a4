"""Receives events and believes them only with the right signature. Its check follows the Standard Webhooks text alone.

  receiver.py PORT FILE      the secret comes on standard input; each good event is a line of FILE
"""
import base64, hashlib, hmac, http.server, json, sys, time

port, file = int(sys.argv[1]), sys.argv[2]
secret = base64.b64decode(sys.stdin.readline().strip().removeprefix("whsec_"))
seen = set()


class Receiver(http.server.BaseHTTPRequestHandler):
    def do_POST(self):
        body = self.rfile.read(int(self.headers["content-length"]))
        number, moment = self.headers["webhook-id"], self.headers["webhook-timestamp"]
        signed = hmac.new(secret, f"{number}.{moment}.".encode() + body, hashlib.sha256).digest()
        offered = [word.removeprefix("v1,") for word in self.headers["webhook-signature"].split() if word.startswith("v1,")]
        good = any(hmac.compare_digest(base64.b64decode(word), signed) for word in offered) and abs(time.time() - int(moment)) < 300
        if good and number not in seen:
            seen.add(number)
            event = json.loads(body)
            with open(file, "a") as kept:
                kept.write(json.dumps({"type": event["type"], "subject": event["subject"], "id": event["id"], "data": event["data"]}) + "\n")
        self.send_response(204 if good else 401)
        self.end_headers()

    def log_message(self, *words):
        pass


http.server.ThreadingHTTPServer(("127.0.0.1", port), Receiver).serve_forever()
