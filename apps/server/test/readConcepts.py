# Reads concepts (SKOS) with a reader that shares no code with Dellum, and says as JSON what it has found.
import json
import sys

from rdflib import Graph
from rdflib.namespace import OWL, RDF, SKOS, Namespace

SCHEMA = Namespace('https://schema.org/')
graph = Graph()
graph.parse(sys.argv[1], format=sys.argv[2])


def texts(subject, predicate):
    return sorted(str(found) for found in graph.objects(subject, predicate))


def concept(subject):
    broader = graph.value(subject, SKOS.broader)
    return {
        'value': texts(subject, SKOS.notation)[0],
        'label': texts(subject, SKOS.prefLabel)[0],
        'language': graph.value(subject, SKOS.prefLabel).language,
        'otherNames': texts(subject, SKOS.altLabel),
        'broader': texts(broader, SKOS.notation)[0] if broader is not None else None,
        'note': texts(subject, SKOS.note),
        'from': [str(day.toPython()) for day in graph.objects(subject, SCHEMA.validFrom)],
        'deprecated': [flag.toPython() for flag in graph.objects(subject, OWL.deprecated)],
    }


found = [concept(subject) for subject in graph.subjects(RDF.type, SKOS.Concept)]
schemes = [texts(scheme, SKOS.prefLabel) for scheme in graph.subjects(RDF.type, SKOS.ConceptScheme)]
print(json.dumps({'schemes': schemes, 'concepts': sorted(found, key=lambda one: (one['broader'] or '', one['value']))}))
