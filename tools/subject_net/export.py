"""Write a trained network for the product: ``python -m tools.subject_net.export WEIGHTS.pt
subject.onnx``. It says how far OpenCV's answers are from those of torch."""

import argparse
from collections.abc import Callable
from pathlib import Path
from typing import Any

import cv2
import numpy as np
import onnx
import torch
from onnx import helper, numpy_helper
from torch import Tensor, nn

from tools.subject_net.network import SIDE, SubjectNetwork

LEAST_HALVED = 256
"""Tensors of at least so many weights are kept in half precision, which halves the file."""


class Share(nn.Module):
    """Answers 0..1 instead of logits."""

    def __init__(self, network: SubjectNetwork) -> None:
        super().__init__()
        self.network = network

    def forward(self, x: Tensor) -> Tensor:
        return torch.sigmoid(self.network(x))


def exported(weights: Path, file: Path) -> float:
    """The largest difference between OpenCV's answer and that of torch."""
    network = SubjectNetwork()
    network.load_state_dict(torch.load(weights))
    return written(Share(network), torch.rand(1, 7, SIDE, SIDE), "alpha", file)


def written(network: nn.Module, shown: Tensor, answer: str, file: Path, **options: Any) -> float:
    """Write a network with its weights in half precision; the largest difference between what
    OpenCV and torch say of what is ``shown``."""
    torch.onnx.export(
        network.eval(), (shown,), str(file), input_names=["x"], output_names=[answer],
        opset_version=14, dynamo=False, **options,
    )  # fmt: skip
    halve(file)
    runs = cv2.dnn.readNetFromONNX(str(file))
    runs.setInput(shown.numpy())
    with torch.no_grad():
        return float(np.abs(runs.forward() - network(shown).numpy()).max())


def halve(file: Path) -> None:
    """Keep the larger weights of a file in half precision; a cast brings each back."""
    model = onnx.load(str(file))
    kept, casts = [], []
    for tensor in model.graph.initializer:
        values = numpy_helper.to_array(tensor)
        if values.dtype != np.float32 or values.size < LEAST_HALVED:
            kept.append(tensor)
            continue
        half = f"{tensor.name}.half"
        kept.append(numpy_helper.from_array(values.astype(np.float16), half))
        casts.append(helper.make_node("Cast", [half], [tensor.name], to=onnx.TensorProto.FLOAT))
    nodes = [*casts, *model.graph.node]
    del model.graph.initializer[:], model.graph.node[:]
    model.graph.initializer.extend(kept)
    model.graph.node.extend(nodes)
    onnx.checker.check_model(model)
    onnx.save(model, str(file))


def main(purpose: str | None, exports: Callable[[Path, Path], float]) -> None:
    parser = argparse.ArgumentParser(description=purpose)
    parser.add_argument("weights", type=Path)
    parser.add_argument("file", type=Path)
    options = parser.parse_args()
    print(f"OpenCV and torch differ by at most {exports(options.weights, options.file):.5f}")


if __name__ == "__main__":
    main(__doc__, exported)
