# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "Helpers of routes" do
  it "stand beside each other, and none takes the name of another or of Sinatra" do
    app = Class.new(Server::App)
    expect { app.helpers { def answer(value) = value } }.to raise_error(NameError, /a helper answer already/)
    expect { app.helpers { def redirect(to) = to } }.to raise_error(NameError, /a helper redirect already/)
    app.helpers { def entirely_new = 7 }
    expect(app.new!.entirely_new).to eq(7)
  end
end
