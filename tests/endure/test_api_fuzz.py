"""Every route with values that its own description allows, and some that it does not: whatever
comes, the answer is one that was meant, never a trace."""

import json
import random
import time

from tests.endure import amount
from tests.web.client import ServiceTest

SLOWEST_SECONDS = 10

ODD = (
    None, True, 0, -1, 1, 0.5, 1e9, 1e308, -1e308, 2**63, "", " ", "a" * 5000, "☘", "../../x",
    "\u202e.gpj", "#FFFFFF", "0" * 64, [], {}, [[]], {"kind": "x"}, [None] * 50, "NaN",
)  # fmt: skip


class ApiFuzzTest(ServiceTest):
    SEED = 20

    def setUp(self):
        super().setUp()
        self.random = random.Random(self.SEED)
        self.schema = self.client.get("/api/openapi.json").json()
        self.calls = [
            (method, path, operation)
            for path, methods in self.schema["paths"].items()
            for method, operation in methods.items()
        ]
        sent = self.client.post("/api/drafts", json=self.finish["document"]).json()["draft"]
        self.known = [self.finish["id"], self.finish["document"]["photo"]["sha256"], sent, "main"]

    def value(self, schema, depth=0):
        """A value that the schema describes; now and then another one."""
        if self.random.random() < 0.08 or depth > 7:
            return self.random.choice(ODD)
        if "$ref" in schema:
            name = schema["$ref"].rpartition("/")[2]
            return self.value(self.schema["components"]["schemas"][name], depth + 1)
        for several in ("anyOf", "oneOf"):
            if several in schema:
                return self.value(self.random.choice(schema[several]), depth + 1)
        if "const" in schema:
            return schema["const"]
        if "enum" in schema:
            return self.random.choice(schema["enum"])
        if "default" in schema and self.random.random() < 0.4:
            return schema["default"]
        return self.of_type(schema, depth)

    def of_type(self, schema, depth):
        kind = schema.get("type")
        if kind == "object":
            fields = schema.get("properties", {})
            required = set(schema.get("required", ()))
            return {
                name: self.value(field, depth + 1)
                for name, field in fields.items()
                if name in required or self.random.random() < 0.5
            }
        if kind == "array":
            parts = schema.get("prefixItems")
            if parts:
                return [self.value(part, depth + 1) for part in parts]
            count = self.random.randint(schema.get("minItems", 0), schema.get("minItems", 0) + 2)
            return [self.value(schema.get("items", {}), depth + 1) for _ in range(count)]
        if kind in ("number", "integer"):
            low, high = schema.get("minimum", -5), schema.get("maximum", 5)
            found = self.random.uniform(low, min(high, low + 100))
            return round(found) if kind == "integer" else found
        if kind == "boolean":
            return self.random.random() < 0.5
        if kind == "null":
            return None
        return self.random.choice([*self.known, "Glaze", "#AA2200", "0123456789abcdef"])

    def request(self):
        """A call and what came of it."""
        method, path, operation = self.random.choice(self.calls)
        query = {}
        for parameter in operation.get("parameters", ()):
            value = self.value(parameter["schema"])
            if parameter["in"] == "path":
                text = str(value).replace("/", "") or "x"
                path = path.replace(f"{{{parameter['name']}}}", text)
            else:
                query[parameter["name"]] = str(value)
        options = {"params": query}
        content = operation.get("requestBody", {}).get("content", {})
        if "application/json" in content:
            body = self.value(content["application/json"]["schema"])
            options["content"] = json.dumps(body).encode()
            options["headers"] = {"Content-Type": "application/json"}
        elif content:
            options["content"] = self.random.randbytes(self.random.randint(0, 200))
        return method, path, options

    def test_no_call_ends_in_an_error_that_nobody_foresaw(self):
        counts = {}
        for number in range(amount(300, 5000)):
            method, path, options = self.request()
            started = time.monotonic()
            try:
                answer = self.client.request(method, path, **options)
            except (ValueError, UnicodeError) as error:
                self.assertIn("URL", str(error) + type(error).__name__)  # not sendable at all
                continue
            took = time.monotonic() - started
            told = (number, method, path, options, answer.text[:300])
            self.assertLess(answer.status_code, 500, told)
            self.assertLess(took, SLOWEST_SECONDS, told)
            if answer.status_code >= 400:
                self.assertNotIn("Traceback", answer.text)
            counts[answer.status_code] = counts.get(answer.status_code, 0) + 1
        self.assertGreater(counts.get(200, 0), 0)
        self.assertGreater(counts.get(422, 0), 0)
