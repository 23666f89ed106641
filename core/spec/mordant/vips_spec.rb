# frozen_string_literal: true

require "spec_helper"
require "mordant/vips"

RSpec.describe "libvips" do
  before { Vips.attach_function(:vips_tracked_get_mem, [], :size_t) unless Vips.respond_to?(:vips_tracked_get_mem) }

  def held
    GC.start
    Vips.vips_tracked_get_mem
  end

  it "keeps nothing of what it made for nobody" do
    rows = Array.new(4) { |seed| Numo::SFloat.new(300, 400).seq(seed).then { |places| (places * 7 % 5) > 2 } }
    Mordant::Area::Islands.new(rows.first).within(3)
    before = held
    rows.each { |plane| Mordant::Area::Islands.new(plane).within(3) }
    expect(held - before).to be < 2 * 4 * 300 * 400 # bytes, of the labels of two of the four
  end
end
