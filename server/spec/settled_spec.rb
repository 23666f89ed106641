# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe Server::Pictures::Settled do
  let(:cut) { Studio.cut(@folder).tap { |cut| cut.project.update!(width: 960, height: 540) } }
  let(:document) do
    Studio.balance(exposure: 0.7, contrast: 1.2).tap do |document|
      document["steps"] << {"id" => "s", "kind" => "sharpen", "parameters" => {"size" => 0.01, "luma" => 2}, "matte" => {"contributors" => [{"id" => "e", "kind" => "ellipse"}], "refinements" => [{"id" => "b", "kind" => "blur"}]}}
    end
  end
  let(:body) { {"frame" => 2, "trial" => [{"recipe" => cut.loaded_shots.first.recipe.id, "document" => document}]} }

  def answer(asked, threads)
    Mordant::Pointwise::Together.count = threads
    described_class.new(Server::Pictures::Asked.wish(Server::Cut.find(cut.id), asked), asked, "full").answer
  ensure
    Mordant::Pointwise::Together.count = 1
  end

  it "answers the same by several threads, with all that instruments read and what is marked, bit for bit" do
    all = {"scopes" => {"traces" => true, "vectorscope" => 2, "histogram" => true, "solid" => "lab"}, "guides" => {"black" => 0.1, "white" => 0.9}}
    answers = [all, {"instruments" => false}, all.merge("marks" => true, "region" => [0.1, 0.3, 0.5, 0.5], "skin" => [0.4, 0.4, 0.1, 0.1])].map do |asked|
      several, one = [3, 1].map { |threads| answer(body.merge(asked), threads) }
      expect(several).to eq(one)
      one
    end
    expect(answers.map { |_, parts| parts.keys }).to eq([%i[picture luma red green blue vector histogram points colours], [:picture], %i[picture luma red green blue vector histogram points colours]])
    expect(answers.first.first).to include(:tone, :guides, width: 960, height: 540, pixels: 518_400)
    expect(answers.last.first).to include(:skin, pixels: 480 * 270)
  end
end
