"""Pushes a file to a registry as an artifact of one titled layer: push-to-registry.py REGISTRY REPOSITORY TAG FILE"""
import hashlib, json, os, sys, urllib.request

registry, repository, tag, path = sys.argv[1:]


def send(method, address, body=b"", kind="application/octet-stream"):
    request = urllib.request.Request(address if "://" in address else registry + address, body, {"Content-Type": kind}, method=method)
    return urllib.request.urlopen(request)


def blob(content):
    digest = "sha256:" + hashlib.sha256(content).hexdigest()
    begun = send("POST", f"/v2/{repository}/blobs/uploads/").headers["location"]
    send("PUT", begun + ("&" if "?" in begun else "?") + "digest=" + digest, content)
    return {"digest": digest, "size": len(content)}


kind = "application/vnd.oci.image.manifest.v1+json"
layer = {"mediaType": "application/gzip", **blob(open(path, "rb").read()), "annotations": {"org.opencontainers.image.title": os.path.basename(path)}}
manifest = {"schemaVersion": 2, "mediaType": kind, "artifactType": "application/vnd.park.archive",
            "config": {"mediaType": "application/vnd.oci.empty.v1+json", **blob(b"{}")}, "layers": [layer]}
send("PUT", f"/v2/{repository}/manifests/{tag}", json.dumps(manifest).encode(), kind)
