# frozen_string_literal: true

require "spec_helper"

RSpec.describe "RGB matrices" do
  spaces = {
    "rec709" => Mordant::Colour::Primaries::REC709, "p3-d65" => Mordant::Colour::Primaries::P3_D65,
    "p3-dci" => Mordant::Colour::Primaries::P3_DCI, "rec2020" => Mordant::Colour::Primaries::REC2020,
    "ap0" => Mordant::Colour::Primaries::AP0, "ap1" => Mordant::Colour::Primaries::AP1
  }

  Reference.entries("matrices").each do |entry|
    from, to, method = Reference.ends(entry["id"])&.values
    ours =
      if to == "xyz" && spaces[from] then spaces[from].to_xyz
      elsif from == "xyz" && spaces[to] then spaces[to].from_xyz
      elsif method == "bradford" && spaces[from] && spaces[to] then spaces[from].to(spaces[to])
      elsif to == "aces2065-1" && (log = Mordant::Colour::Encoding.all.find { |e| e.id.end_with?("-#{from}") })
        log.decoding.last.rows
      end
    next unless ours

    it "agree for #{entry["id"]}" do
      expect(ours).to match_rows(entry["matrix"], absolute: 1e-6)
    end
  end

  it "refuse to invert what cannot be inverted" do
    expect { Mordant::Colour::Matrix3.inverse([[1, 2, 3], [2, 4, 6], [0, 0, 1]]) }.to raise_error(ZeroDivisionError)
  end
end
