"""Write a trained network for the product: ``python -m tools.soft_edge_net.export WEIGHTS.pt
soft_edges.onnx``. It says how far OpenCV's answers are from those of torch."""

from pathlib import Path

import torch
from torch import Tensor, nn

from tools.soft_edge_net.network import PLANES, SoftEdgeNetwork
from tools.subject_net.export import main, written


class Fours(nn.Module):
    """With four neighbours as channels, which OpenCV need not know about."""

    def __init__(self, network: SoftEdgeNetwork) -> None:
        super().__init__()
        self.network = network

    def forward(self, x: Tensor) -> Tensor:
        return self.network.fours(x)


def exported(weights: Path, file: Path) -> float:
    """The largest difference between OpenCV's answer and that of torch."""
    network = SoftEdgeNetwork()
    network.load_state_dict(torch.load(weights))
    sides = {"x": {2: "rows", 3: "columns"}, "logits": {2: "rows", 3: "columns"}}
    shown = torch.rand(1, 4 * PLANES, 128, 160)
    return written(Fours(network), shown, "logits", file, dynamic_axes=sides)


if __name__ == "__main__":
    main(__doc__, exported)
